import { Body, Controller, Delete, Get, HttpCode, Param, Post } from '@nestjs/common';
import { Acted, RowStory, actedSchema, commentSchema, cursorSchema, rowStorySchema } from '@wanderon/contract';
import { createZodDto, ZodResponse } from 'nestjs-zod';
import { DONE, Done, DoneDto } from '../done';
import { Allow, Caller, Person } from '../people/allow';
import { CursorService } from './cursors.service';
import { RowStoryService } from './rowStory.service';

class RowStoryDto extends createZodDto(rowStorySchema) {}
class CommentDto extends createZodDto(commentSchema) {}
class CursorDto extends createZodDto(cursorSchema) {}
class ActedDto extends createZodDto(actedSchema) {}

/** Single rows of a ledger. */
@Controller('api/legs/:leg')
export class RowsController {
  constructor(
    private readonly stories: RowStoryService,
    private readonly cursors: CursorService,
  ) {}

  @Get('rows/:row')
  @Allow('viewer')
  @ZodResponse({ type: RowStoryDto, description: 'What lies behind a row: evidence, ends, history and comments.' })
  async story(@Param('leg') leg: string, @Param('row') row: string, @Person() person: Caller): Promise<RowStory> {
    return this.stories.story(leg, row, person);
  }

  @Post('rows/:row/comments')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: ActedDto, description: 'Writes something beside a row, for everybody.' })
  async comment(@Param('leg') leg: string, @Param('row') row: string, @Body() input: CommentDto, @Person() person: Caller): Promise<Acted> {
    return this.stories.comment(leg, row, input, person);
  }

  @Post('cursor')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: DoneDto, description: 'Tells everybody on which row one stands; it is kept nowhere.' })
  async cursor(@Param('leg') leg: string, @Body() input: CursorDto, @Person() person: Caller): Promise<Done> {
    await this.cursors.tell(leg, input, person);
    return DONE;
  }

  @Delete('comments/:comment')
  @Allow('technician')
  @ZodResponse({ type: ActedDto, description: 'Takes back what one wrote.' })
  async takeBack(@Param('leg') leg: string, @Param('comment') comment: string, @Person() person: Caller): Promise<Acted> {
    return this.stories.takeBack(leg, comment, person);
  }
}
