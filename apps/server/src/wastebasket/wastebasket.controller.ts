import type { Account, WastebasketKind } from '@mailbag/contract';
import { WASTEBASKET_KINDS, WastebasketLine } from '@mailbag/contract';
import { Controller, Delete, Get, HttpCode, Param, ParseEnumPipe, ParseIntPipe, Post } from '@nestjs/common';
import { WithoutValues } from '../accounts/hidden-values.js';
import { Needs, SignedIn } from '../accounts/session.guard.js';
import { Answers } from '../platform/answers.js';
import { Wastebasket } from './wastebasket.service.js';

const KIND = new ParseEnumPipe(Object.fromEntries(WASTEBASKET_KINDS.map((kind) => [kind, kind])));

/** Deleting things, and what lies in the wastebasket since. */
@Controller('api')
@WithoutValues()
export class WastebasketController {
  constructor(private readonly wastebasket: Wastebasket) {}

  @Delete('templates/:id')
  @HttpCode(204)
  template(@Param('id', ParseIntPipe) id: number, @SignedIn() by: Account): Promise<void> {
    return this.wastebasket.put('template', id, by);
  }
  @Delete('sources/:id')
  @HttpCode(204)
  source(@Param('id', ParseIntPipe) id: number, @SignedIn() by: Account): Promise<void> {
    return this.wastebasket.put('source', id, by);
  }
  @Delete('mailings/:id')
  @HttpCode(204)
  mailing(@Param('id', ParseIntPipe) id: number, @SignedIn() by: Account): Promise<void> {
    return this.wastebasket.put('mailing', id, by);
  }
  @Delete('intakes/:id')
  @HttpCode(204)
  intake(@Param('id', ParseIntPipe) id: number, @SignedIn() by: Account): Promise<void> {
    return this.wastebasket.put('intake', id, by);
  }
  @Delete('connections/:id')
  @HttpCode(204)
  connection(@Param('id', ParseIntPipe) id: number, @SignedIn() by: Account): Promise<void> {
    return this.wastebasket.put('connection', id, by);
  }
  @Delete('senders/:id')
  @Needs('administrator')
  @HttpCode(204)
  sender(@Param('id', ParseIntPipe) id: number, @SignedIn() by: Account): Promise<void> {
    return this.wastebasket.put('sender', id, by);
  }
  @Delete('mail-servers/:id')
  @Needs('administrator')
  @HttpCode(204)
  mailServer(@Param('id', ParseIntPipe) id: number, @SignedIn() by: Account): Promise<void> {
    return this.wastebasket.put('mail-server', id, by);
  }
  @Delete('printers/:id')
  @Needs('administrator')
  @HttpCode(204)
  printer(@Param('id', ParseIntPipe) id: number, @SignedIn() by: Account): Promise<void> {
    return this.wastebasket.put('printer', id, by);
  }
  @Delete('registers/:id')
  @Needs('administrator')
  @HttpCode(204)
  register(@Param('id', ParseIntPipe) id: number, @SignedIn() by: Account): Promise<void> {
    return this.wastebasket.put('register', id, by);
  }
  @Delete('copies/views/:id')
  @Needs('viewer')
  @HttpCode(204)
  view(@Param('id', ParseIntPipe) id: number, @SignedIn() by: Account): Promise<void> {
    return this.wastebasket.put('view', id, by);
  }

  @Answers([WastebasketLine])
  @Get('wastebasket')
  list(@SignedIn() by: Account): Promise<WastebasketLine[]> {
    return this.wastebasket.list(by);
  }
  @Answers([WastebasketLine])
  @Post('wastebasket/:kind/:id/back')
  @Needs('viewer')
  @HttpCode(200)
  putBack(
    @Param('kind', KIND) kind: WastebasketKind,
    @Param('id', ParseIntPipe) id: number,
    @SignedIn() by: Account,
  ): Promise<WastebasketLine[]> {
    return this.wastebasket.putBack(kind, id, by);
  }
  @Answers([WastebasketLine])
  @Delete('wastebasket/:kind/:id')
  @Needs('viewer')
  erase(
    @Param('kind', KIND) kind: WastebasketKind,
    @Param('id', ParseIntPipe) id: number,
    @SignedIn() by: Account,
  ): Promise<WastebasketLine[]> {
    return this.wastebasket.erase(kind, id, by);
  }
}
