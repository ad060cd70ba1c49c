import { HealthAnswer } from '@mailbag/contract';
import { Answers } from '../platform/answers.js';
import { Controller, Get } from '@nestjs/common';
import { OpenToEverybody } from '../accounts/session.guard.js';

@Controller('api/health')
export class HealthController {
  @Answers(HealthAnswer)
  @Get()
  @OpenToEverybody()
  health(): HealthAnswer {
    return { ok: true };
  }
}
