import {
  Body,
  Controller,
  Delete,
  Get,
  Header,
  HttpCode,
  HttpStatus,
  Param,
  ParseUUIDPipe,
  Patch,
  Post,
  Put,
  Query,
  Req,
  Res,
} from '@nestjs/common';
import { ApiBody, ApiCreatedResponse, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import { ZodResponse } from 'nestjs-zod';
import { Asker } from '../accounts/session.guard.ts';
import { notFound, Problem } from '../common/problem.ts';
import type { Account } from '../data/entities.ts';
import {
  ChangeProject,
  EditList,
  FileProject,
  KeptEdits,
  ListedProject,
  listedOf,
  NewEdits,
  NewProjectBody,
  OpenedProject,
  Revision,
  Stretch,
} from './bodies.ts';
import { ProjectsService } from './projects.service.ts';
import { mediaTypeOf, type Answer } from './tasks.ts';

const projectId = new ParseUUIDPipe({ exceptionFactory: notFound });

/** Projects, their edits and their pictures. */
@ApiTags('projects')
@Controller('api/projects')
export class ProjectsController {
  constructor(private readonly projects: ProjectsService) {}

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

  @Get(':id/edits')
  @ApiOkResponse({ type: EditList })
  async edits(
    @Asker() account: Account,
    @Param('id', projectId) id: string,
    @Query() stretch: Stretch,
    @Res() response: Response,
  ) {
    const edits = await this.projects.editsAfter(account, id, stretch);
    send(response, { status: 200, text: `{"edits":${edits}}` });
  }

  @Post(':id/edits')
  @ApiBody({ type: NewEdits })
  @ApiCreatedResponse({ type: Revision })
  async append(
    @Asker() account: Account,
    @Param('id', projectId) id: string,
    @Body() body: unknown,
    @Res() response: Response,
  ) {
    send(response, await this.projects.append(account, id, body));
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
    send(response, await this.projects.setPicture(account, id, request.body));
  }

  @Get(':id/picture')
  @Header('Cache-Control', 'private, max-age=31536000, immutable')
  async picture(
    @Asker() account: Account,
    @Param('id', projectId) id: string,
    @Res() response: Response,
  ): Promise<void> {
    const { mediaType, bytes } = await this.projects.picture(account, id);
    response.type(mediaType).send(bytes);
  }
}

/** What is ready as text is not read and written again. */
function send(response: Response, { status, text }: Answer): void {
  response.status(status).type(mediaTypeOf(status)).send(text);
}
