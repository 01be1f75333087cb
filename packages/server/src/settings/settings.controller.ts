import { Controller, Get, Inject } from '@nestjs/common';
import { SettingView, settingListSchema } from '@wanderon/contract';
import { createZodDto, ZodResponse } from 'nestjs-zod';
import { CONFIG, Config } from '../config';
import { Allow } from '../people/allow';
import { settingsOf } from './settings';

class SettingListDto extends createZodDto(settingListSchema) {}

/** What this installation was told from outside. It is changed where it was set, and not here. */
@Controller('api/settings')
export class SettingsController {
  constructor(@Inject(CONFIG) private readonly config: Config) {}

  @Get()
  @Allow('administrator')
  @ZodResponse({ type: SettingListDto, description: 'What is set where; of secrets only whether they are set.' })
  list(): { settings: SettingView[] } {
    return { settings: settingsOf(this.config, process.env) };
  }
}
