import { Controller, HttpCode, Inject, Param, Post } from '@nestjs/common';
import { MoveView, moveSchema } from '@wanderon/contract';
import { isDone } from '@wanderon/core';
import { createZodDto, ZodResponse } from 'nestjs-zod';
import { DATABASE, Database } from '../db/database';
import { MoveStore } from '../moves/move.store';
import { MoveViews } from '../moves/move.view';
import { KEPT, MoveActs } from '../moves/moveActs';
import { Allow, Caller, Person } from '../people/allow';
import { ProblemError } from '../problem';

class MoveDto extends createZodDto(moveSchema) {}

@Controller('api/moves/:id')
export class WatchController {
  constructor(
    @Inject(DATABASE) private readonly database: Database,
    private readonly acts: MoveActs,
    private readonly store: MoveStore,
    private readonly views: MoveViews,
  ) {}

  @Post('website')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: MoveDto, description: 'Looks at the website now, where the plan leads.' })
  async lookAtWebsite(@Param('id') id: string, @Person() person: Caller): Promise<MoveView> {
    await this.acts.exclusive(id, async () => {
      const { move, leg, steps } = await this.acts.open(id);
      if (!isDone(steps, 'choose')) throw new ProblemError(409, 'Where the website will be is known once the hosts are chosen.', { kept: KEPT });
      if (isDone(steps, 'settle')) throw new ProblemError(409, 'The move is settled: the website is not looked at any more.', { kept: KEPT });
      await this.database.transaction(async (transaction) => {
        await this.store.addFacts(leg.id, { pagesLookedAt: 0 }, transaction);
        await this.acts.event(move, person, 'website', 'A look at the website was asked for.', { before: leg.facts.pagesLookedAt ?? null }, transaction);
      });
      await this.acts.changed(id);
    });
    return this.views.get(id);
  }
}
