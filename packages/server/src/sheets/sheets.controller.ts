import { Body, Controller, Get, Header, HttpCode, Param, Post, Query } from '@nestjs/common';
import {
  MadeSheetLink,
  OpenSheetView,
  SheetLink,
  madeSheetLinkSchema,
  newSheetLinkSchema,
  openSheetSchema,
  sheetQuerySchema,
  sheetLinksSchema,
  typedSchema,
} from '@wanderon/contract';
import { createZodDto, ZodResponse } from 'nestjs-zod';
import { Allow, Caller, Person } from '../people/allow';
import { SheetLinks } from './sheetLinks.service';

class SheetLinksDto extends createZodDto(sheetLinksSchema) {}
class SheetQueryDto extends createZodDto(sheetQuerySchema) {}
class NewSheetLinkDto extends createZodDto(newSheetLinkSchema) {}
class MadeSheetLinkDto extends createZodDto(madeSheetLinkSchema) {}
class TypedDto extends createZodDto(typedSchema) {}
class OpenSheetDto extends createZodDto(openSheetSchema) {}

@Controller('api')
export class SheetsController {
  constructor(private readonly links: SheetLinks) {}

  @Get('sheets/:secret')
  @Allow('anybody')
  @Header('cache-control', 'no-store')
  @ZodResponse({ type: OpenSheetDto, description: 'One handover sheet, for whoever has its link.' })
  async open(@Param('secret') secret: string): Promise<OpenSheetView> {
    return this.links.open(secret);
  }

  @Post('sheets/:secret/typed')
  @HttpCode(200)
  @Allow('anybody')
  @Header('cache-control', 'no-store')
  @ZodResponse({ type: OpenSheetDto, description: 'Ticks a row of the sheet, for whoever has its link.' })
  async tick(@Param('secret') secret: string, @Body() input: TypedDto): Promise<OpenSheetView> {
    return this.links.tick(secret, input);
  }

  @Get('legs/:leg/sheet-links')
  @Allow('technician')
  @ZodResponse({ type: SheetLinksDto, description: 'Links to one sheet of a leg, without their secrets.' })
  async list(@Param('leg') leg: string, @Query() { sheet }: SheetQueryDto): Promise<{ links: SheetLink[] }> {
    return { links: await this.links.ofLeg(leg, sheet) };
  }

  @Post('legs/:leg/sheet-links')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: MadeSheetLinkDto, description: 'Makes a link to the handover sheet; its secret is told once.' })
  async make(@Param('leg') leg: string, @Body() input: NewSheetLinkDto, @Person() person: Caller): Promise<MadeSheetLink> {
    return this.links.make(leg, input, person);
  }

  @Post('legs/:leg/sheet-links/:id/withdraw')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: SheetLinksDto, description: 'Ends a link.' })
  async withdraw(@Param('leg') leg: string, @Param('id') id: string, @Person() person: Caller): Promise<{ links: SheetLink[] }> {
    return { links: await this.links.withdraw(leg, id, person) };
  }
}
