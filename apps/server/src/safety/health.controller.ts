import { Controller, Get } from '@nestjs/common';
import { OpenToEverybody } from '../accounts/session.guard.js';

@Controller('api/health')
export class HealthController {
  @Get()
  @OpenToEverybody()
  health(): { ok: true } {
    return { ok: true };
  }
}
