import {
  Body,
  Controller,
  Delete,
  Get,
  Header,
  HttpCode,
  HttpStatus,
  Param,
  ParseIntPipe,
  ParseUUIDPipe,
  Patch,
  Post,
  Put,
  Query,
  Res,
  type PipeTransform,
} from '@nestjs/common';
import { ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { ZodResponse } from 'nestjs-zod';
import { Asker } from '../accounts/session.guard.ts';
import { notFound, Problem } from '../common/problem.ts';
import type { Account } from '../data/entities.ts';
import type { Response } from 'express';
import { ChangeRack, ListedRack, NewRack, OpenedRack, PutRackPart, RackPicture } from './bodies.ts';
import { RacksService } from './racks.service.ts';

const rackId = new ParseUUIDPipe({ exceptionFactory: notFound });

/** Ids of parts as documents have them. */
const partId: PipeTransform<string, string> = {
  transform(part) {
    if (/^[a-z0-9]{1,40}$/.test(part)) return part;
    throw new Problem(HttpStatus.NOT_FOUND, 'There is no such part on this rack.');
  },
};

/** Racks and their parts. */
@ApiTags('racks')
@Controller('api/racks')
export class RacksController {
  constructor(private readonly racks: RacksService) {}

  @Get()
  @ZodResponse({ status: 200, type: [ListedRack] })
  list(@Asker() account: Account) {
    return this.racks.list(account);
  }

  /** With parts: what was exported from another. */
  @Post()
  @ZodResponse({ status: 201, type: ListedRack })
  create(@Asker() account: Account, @Body() body: NewRack) {
    return this.racks.create(account, body);
  }

  @Get(':id')
  @ZodResponse({ status: 200, type: OpenedRack })
  open(@Asker() account: Account, @Param('id', rackId) id: string) {
    return this.racks.open(account, id);
  }

  @Patch(':id')
  @ZodResponse({ status: 200, type: ListedRack })
  rename(@Asker() account: Account, @Param('id', rackId) id: string, @Body() { name }: ChangeRack) {
    return this.racks.rename(account, id, name);
  }

  @Delete(':id')
  @HttpCode(204)
  delete(@Asker() account: Account, @Param('id', rackId) id: string): Promise<void> {
    return this.racks.delete(account, id);
  }

  /** A new part, or a new version of one: the server counts versions. */
  @Put(':id/parts')
  @ZodResponse({ status: 200, type: PutRackPart })
  put(@Asker() account: Account, @Param('id', rackId) id: string, @Body() body: PutRackPart) {
    return this.racks.put(account, id, body);
  }

  /** Lines that a page has drawn of a version. */
  @Put(':id/parts/:part/picture')
  @HttpCode(204)
  async setPicture(
    @Asker() account: Account,
    @Param('id', rackId) id: string,
    @Param('part', partId) part: string,
    @Body() body: RackPicture,
  ): Promise<void> {
    await this.racks.setPicture(account, { id, part }, body);
  }

  @Get(':id/parts/:part/picture')
  @ApiOkResponse({ type: RackPicture })
  @Header('Cache-Control', 'private, max-age=31536000, immutable')
  async picture(
    @Asker() account: Account,
    @Param('id', rackId) id: string,
    @Param('part', partId) part: string,
    @Query('version', ParseIntPipe) version: number,
    @Res() response: Response,
  ): Promise<void> {
    const { mediaType, bytes } = await this.racks.picture(account, { id, part }, version);
    response.type(mediaType).send(bytes);
  }

  @Delete(':id/parts/:part')
  @HttpCode(204)
  async take(
    @Asker() account: Account,
    @Param('id', rackId) id: string,
    @Param('part', partId) part: string,
  ): Promise<void> {
    await this.racks.take(account, id, part);
  }
}
