import {
  Body,
  Controller,
  Get,
  Header,
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
import { ApiTags } from '@nestjs/swagger';
import { documentSchema, editSchema, sceneSchema } from '@kadrel/core';
import type { Request, Response } from 'express';
import { createZodDto, ZodResponse } from 'nestjs-zod';
import { z } from 'zod';
import { Asker } from '../accounts/session.guard.ts';
import { notFound, Problem } from '../common/problem.ts';
import type { Account, Project } from '../data/entities.ts';
import { ProjectsService } from './projects.service.ts';

const name = z.string().trim().min(1, 'A project needs a name.').max(120);
class NewProject extends createZodDto(z.strictObject({ name, scene: sceneSchema.partial().default({}) })) {}
class FileProject extends createZodDto(z.strictObject({ name, document: z.unknown() })) {}
class ChangeProject extends createZodDto(
  z.strictObject({ name: name.optional(), archived: z.boolean().optional() }),
) {}
class NewEdits extends createZodDto(
  z.strictObject({ base: z.number().int().nonnegative(), edits: z.array(editSchema).min(1).max(500) }),
) {}
class KeptEdits extends createZodDto(
  z.strictObject({
    name,
    base: z.number().int().nonnegative(),
    edits: z.array(editSchema).max(5000),
  }),
) {}
class After extends createZodDto(z.object({ after: z.coerce.number().int().nonnegative().default(0) })) {}

const listed = z.object({
  id: z.string(),
  name: z.string(),
  revision: z.number(),
  picture: z.string().nullable(),
  archived: z.boolean(),
  changedAt: z.string(),
});
class ListedProject extends createZodDto(listed) {}
class OpenedProjectDto extends createZodDto(listed.extend({ document: documentSchema })) {}
class EditList extends createZodDto(z.object({ edits: z.array(editSchema) })) {}
class Revision extends createZodDto(z.object({ revision: z.number() })) {}

/** Pictures are at most this large. */
const MOST_PICTURE_BYTES = 2_000_000;
const PNG = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);

const projectId = new ParseUUIDPipe({ exceptionFactory: notFound });

@ApiTags('projects')
@Controller('api/projects')
export class ProjectsController {
  constructor(private readonly projects: ProjectsService) {}

  @Get()
  @ZodResponse({ status: 200, type: [ListedProject] })
  async list(@Asker() account: Account) {
    return (await this.projects.list(account)).map(shown);
  }

  @Post()
  @ZodResponse({ status: 201, type: ListedProject })
  async create(@Asker() account: Account, @Body() body: NewProject) {
    return shown(await this.projects.create(account, body.name, body.scene));
  }

  /** A Kadrel JSON file, of this version or an older one, as a project. */
  @Post('from-file')
  @ZodResponse({ status: 201, type: ListedProject })
  async fromFile(@Asker() account: Account, @Body() body: FileProject) {
    return shown(await this.projects.createFromFile(account, body.name, body.document));
  }

  @Get(':id')
  @ZodResponse({ status: 200, type: OpenedProjectDto })
  async open(@Asker() account: Account, @Param('id', projectId) id: string) {
    const { project, document } = await this.projects.open(account, id);
    return { ...shown(project), document };
  }

  @Patch(':id')
  @ZodResponse({ status: 200, type: ListedProject })
  async change(@Asker() account: Account, @Param('id', projectId) id: string, @Body() body: ChangeProject) {
    if (body.name === undefined && body.archived === undefined)
      throw new Problem(HttpStatus.BAD_REQUEST, 'Say what to change.');
    if (body.name !== undefined) await this.projects.rename(account, id, body.name);
    if (body.archived !== undefined) await this.projects.archive(account, id, body.archived);
    return shown((await this.projects.open(account, id)).project);
  }

  @Post(':id/duplicate')
  @ZodResponse({ status: 201, type: ListedProject })
  async duplicate(@Asker() account: Account, @Param('id', projectId) id: string) {
    return shown(await this.projects.duplicate(account, id));
  }

  @Get(':id/edits')
  @ZodResponse({ status: 200, type: EditList })
  async edits(@Asker() account: Account, @Param('id', projectId) id: string, @Query() { after }: After) {
    return { edits: await this.projects.editsAfter(account, id, after) };
  }

  @Post(':id/edits')
  @ZodResponse({ status: 201, type: Revision })
  async append(@Asker() account: Account, @Param('id', projectId) id: string, @Body() body: NewEdits) {
    return this.projects.append(account, id, body);
  }

  /** What a page has that this project cannot take, as a project of its own. */
  @Post(':id/keep')
  @ZodResponse({ status: 201, type: ListedProject })
  async keep(
    @Asker() account: Account,
    @Param('id', projectId) id: string,
    @Body() { name: called, ...save }: KeptEdits,
  ) {
    return shown(await this.projects.createFrom(account, id, called, save));
  }

  @Put(':id/picture')
  @ZodResponse({ status: 200, type: ListedProject })
  async setPicture(@Asker() account: Account, @Param('id', projectId) id: string, @Req() request: Request) {
    const bytes: unknown = request.body;
    if (!Buffer.isBuffer(bytes) || !bytes.subarray(0, 8).equals(PNG))
      throw new Problem(HttpStatus.UNSUPPORTED_MEDIA_TYPE, 'A picture is a PNG file.');
    if (bytes.length > MOST_PICTURE_BYTES)
      throw new Problem(HttpStatus.PAYLOAD_TOO_LARGE, 'A picture is at most 2 MB.');
    return shown(await this.projects.setPicture(account, id, 'image/png', bytes));
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

const shown = ({ id, name: called, revision, picture, archived, changedAt }: Project) => ({
  id,
  name: called,
  revision,
  picture: picture ?? null,
  archived,
  changedAt: changedAt.toISOString(),
});
