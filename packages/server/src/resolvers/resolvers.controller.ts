import { Body, Controller, Delete, Get, HttpCode, Param, Post, Put } from '@nestjs/common';
import {
  ResolverTrial,
  ResolverView,
  resolverInputSchema,
  resolverListSchema,
  resolverOrderSchema,
  resolverTrialSchema,
  tryResolverSchema,
} from '@wanderon/contract';
import { createZodDto, ZodResponse } from 'nestjs-zod';
import { Allow, Caller, Person } from '../people/allow';
import { ResolversService } from './resolvers.service';

class ResolverInputDto extends createZodDto(resolverInputSchema) {}
class ResolverListDto extends createZodDto(resolverListSchema) {}
class ResolverOrderDto extends createZodDto(resolverOrderSchema) {}
class ResolverTrialDto extends createZodDto(resolverTrialSchema) {}
class TryResolverDto extends createZodDto(tryResolverSchema) {}

@Controller('api/resolvers')
export class ResolversController {
  constructor(private readonly resolvers: ResolversService) {}

  @Get()
  @Allow('viewer')
  @ZodResponse({ type: ResolverListDto, description: 'The resolvers that moves are watched from.' })
  list(): { resolvers: ResolverView[] } {
    return { resolvers: this.resolvers.list() };
  }

  @Post()
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: ResolverListDto, description: 'Adds a resolver that answers; one that does not where that is said.' })
  async add(@Body() input: ResolverInputDto, @Person() person: Caller): Promise<{ resolvers: ResolverView[] }> {
    await this.resolvers.add(input, person);
    return this.list();
  }

  @Post('try')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: ResolverTrialDto, description: 'Asks a resolver for the nameservers of the root.' })
  async try(@Body() { name }: TryResolverDto): Promise<ResolverTrial> {
    return this.resolvers.try(name);
  }

  @Put('order')
  @Allow('technician')
  @ZodResponse({ type: ResolverListDto, description: 'Puts the added resolvers in another order.' })
  async order(@Body() { ids }: ResolverOrderDto, @Person() person: Caller): Promise<{ resolvers: ResolverView[] }> {
    await this.resolvers.order(ids, person);
    return this.list();
  }

  @Delete(':id')
  @Allow('technician')
  @ZodResponse({ type: ResolverListDto, description: 'Takes a resolver out that somebody added.' })
  async remove(@Param('id') id: string, @Person() person: Caller): Promise<{ resolvers: ResolverView[] }> {
    await this.resolvers.remove(id, person);
    return this.list();
  }
}
