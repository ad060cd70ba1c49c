import { RegisterAnswer, RegisterRequest } from '@mailbag/contract';
import { Answers } from '../platform/answers.js';
import { Body, Controller, Get, Param, ParseIntPipe, Post, Put } from '@nestjs/common';
import { WithoutValues } from '../accounts/hidden-values.js';
import { Needs } from '../accounts/session.guard.js';
import { Registers } from './registers.service.js';

@Controller('api/registers')
@WithoutValues()
@Needs('administrator')
export class RegistersController {
  constructor(private readonly registers: Registers) {}

  @Answers([RegisterAnswer])
  @Get()
  list(): Promise<RegisterAnswer[]> {
    return this.registers.list();
  }
  @Answers([RegisterAnswer])
  @Post()
  add(@Body() body: RegisterRequest): Promise<RegisterAnswer[]> {
    return this.registers.save(null, body);
  }
  @Answers([RegisterAnswer])
  @Put(':id')
  save(@Param('id', ParseIntPipe) id: number, @Body() body: RegisterRequest): Promise<RegisterAnswer[]> {
    return this.registers.save(id, body);
  }
}
