import type { RegisterAnswer } from '@mailbag/contract';
import { RegisterRequest } from '@mailbag/contract';
import { Body, Controller, Delete, Get, Param, ParseIntPipe, Post, Put } from '@nestjs/common';
import { WithoutValues } from '../accounts/hidden-values.js';
import { Needs } from '../accounts/session.guard.js';
import { Registers } from './registers.service.js';

@Controller('api/registers')
@WithoutValues()
@Needs('administrator')
export class RegistersController {
  constructor(private readonly registers: Registers) {}

  @Get()
  list(): Promise<RegisterAnswer[]> {
    return this.registers.list();
  }
  @Post()
  add(@Body() body: RegisterRequest): Promise<RegisterAnswer[]> {
    return this.registers.save(null, body);
  }
  @Put(':id')
  save(@Param('id', ParseIntPipe) id: number, @Body() body: RegisterRequest): Promise<RegisterAnswer[]> {
    return this.registers.save(id, body);
  }
  @Delete(':id')
  remove(@Param('id', ParseIntPipe) id: number): Promise<RegisterAnswer[]> {
    return this.registers.remove(id);
  }
}
