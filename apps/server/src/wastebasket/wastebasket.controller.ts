import type { WastebasketKind } from '@mailbag/contract';
import { WASTEBASKET_KINDS, WastebasketLine } from '@mailbag/contract';
import { Controller, Delete, Get, HttpCode, Param, ParseEnumPipe, ParseIntPipe, Post } from '@nestjs/common';
import { WithoutValues } from '../accounts/hidden-values.js';
import { Who } from '../accounts/session.guard.js';
import { Answers } from '../platform/answers.js';
import type { Principal } from '../platform/principal.js';
import { Wastebasket } from './wastebasket.service.js';

const KIND = new ParseEnumPipe(Object.fromEntries(WASTEBASKET_KINDS.map((kind) => [kind, kind])));

/** Deleting things, and what lies in the wastebasket since. */
@Controller('api')
@WithoutValues()
export class WastebasketController {
  constructor(private readonly wastebasket: Wastebasket) {}

  @Delete('templates/:id')
  @HttpCode(204)
  template(@Param('id', ParseIntPipe) id: number, @Who() who: Principal): Promise<void> {
    return this.wastebasket.put('template', id, who);
  }
  @Delete('sources/:id')
  @HttpCode(204)
  source(@Param('id', ParseIntPipe) id: number, @Who() who: Principal): Promise<void> {
    return this.wastebasket.put('source', id, who);
  }
  @Delete('mailings/:id')
  @HttpCode(204)
  mailing(@Param('id', ParseIntPipe) id: number, @Who() who: Principal): Promise<void> {
    return this.wastebasket.put('mailing', id, who);
  }
  @Delete('intakes/:id')
  @HttpCode(204)
  intake(@Param('id', ParseIntPipe) id: number, @Who() who: Principal): Promise<void> {
    return this.wastebasket.put('intake', id, who);
  }

  @Answers([WastebasketLine])
  @Get('wastebasket')
  list(): Promise<WastebasketLine[]> {
    return this.wastebasket.list();
  }
  @Answers([WastebasketLine])
  @Post('wastebasket/:kind/:id/back')
  @HttpCode(200)
  putBack(@Param('kind', KIND) kind: WastebasketKind, @Param('id', ParseIntPipe) id: number): Promise<WastebasketLine[]> {
    return this.wastebasket.putBack(kind, id);
  }
  @Answers([WastebasketLine])
  @Delete('wastebasket/:kind/:id')
  erase(@Param('kind', KIND) kind: WastebasketKind, @Param('id', ParseIntPipe) id: number): Promise<WastebasketLine[]> {
    return this.wastebasket.erase(kind, id);
  }
}
