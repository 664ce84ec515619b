import {
  Body,
  Controller,
  Delete,
  Get,
  Header,
  HttpCode,
  HttpStatus,
  Param,
  Patch,
  Post,
  Put,
  Req,
  Res,
} from '@nestjs/common';
import { ApiBody, ApiCreatedResponse, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import { ZodResponse } from 'nestjs-zod';
import { Asker } from '../accounts/session.guard.ts';
import { Problem } from '../common/problem.ts';
import type { Account } from '../data/entities.ts';
import {
  ChangeProject,
  FileProject,
  KeptEdits,
  ListedProject,
  listedOf,
  NewProjectBody,
  OpenedProject,
} from './bodies.ts';
import { PicturesService } from './pictures.service.ts';
import { ProjectsService } from './projects.service.ts';
import { projectId, send } from './answering.ts';

/** Projects and their pictures. */
@ApiTags('projects')
@Controller('api/projects')
export class ProjectsController {
  constructor(
    private readonly projects: ProjectsService,
    private readonly pictures: PicturesService,
  ) {}

  @Get()
  @ZodResponse({ status: 200, type: [ListedProject] })
  async list(@Asker() account: Account) {
    return (await this.projects.list(account)).map(listedOf);
  }

  @Post()
  @ZodResponse({ status: 201, type: ListedProject })
  async create(@Asker() account: Account, @Body() body: NewProjectBody) {
    return listedOf(await this.projects.create(account, body.name, body.scene));
  }

  /** A Kadrel JSON file, of this version or an older one, as a project. */
  @Post('from-file')
  @ApiBody({ type: FileProject })
  @ApiCreatedResponse({ type: ListedProject })
  async fromFile(@Asker() account: Account, @Body() body: unknown, @Res() response: Response) {
    send(response, await this.projects.createFromFile(account, body));
  }

  @Get(':id')
  @ApiOkResponse({ type: OpenedProject })
  async open(@Asker() account: Account, @Param('id', projectId) id: string, @Res() response: Response) {
    send(response, await this.projects.open(account, id));
  }

  @Patch(':id')
  @ZodResponse({ status: 200, type: ListedProject })
  async change(@Asker() account: Account, @Param('id', projectId) id: string, @Body() body: ChangeProject) {
    if (body.name === undefined && body.archived === undefined)
      throw new Problem(HttpStatus.BAD_REQUEST, 'Say what to change.');
    return listedOf(await this.projects.change(account, id, body));
  }

  /** For good, out of the archive. */
  @Delete(':id')
  @HttpCode(204)
  async delete(@Asker() account: Account, @Param('id', projectId) id: string): Promise<void> {
    await this.projects.delete(account, id);
  }

  @Post(':id/duplicate')
  @ApiCreatedResponse({ type: ListedProject })
  async duplicate(@Asker() account: Account, @Param('id', projectId) id: string, @Res() response: Response) {
    send(response, await this.projects.duplicate(account, id));
  }

  /** What a page has that this project cannot take, as a project of its own. */
  @Post(':id/keep')
  @ApiBody({ type: KeptEdits })
  @ApiCreatedResponse({ type: ListedProject })
  async keep(
    @Asker() account: Account,
    @Param('id', projectId) id: string,
    @Body() body: unknown,
    @Res() response: Response,
  ) {
    send(response, await this.projects.keep(account, id, body));
  }

  @Put(':id/picture')
  @ApiOkResponse({ type: ListedProject })
  async setPicture(
    @Asker() account: Account,
    @Param('id', projectId) id: string,
    @Req() request: Request,
    @Res() response: Response,
  ) {
    send(response, await this.pictures.set(account, id, request.body));
  }

  @Get(':id/picture')
  @Header('Cache-Control', 'private, max-age=31536000, immutable')
  async picture(
    @Asker() account: Account,
    @Param('id', projectId) id: string,
    @Res() response: Response,
  ): Promise<void> {
    const { mediaType, bytes } = await this.pictures.of(account, id);
    response.type(mediaType).send(bytes);
  }
}
