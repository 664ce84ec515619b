import { Body, Controller, Get, Param, Post, Query, Res } from '@nestjs/common';
import { ApiBody, ApiCreatedResponse, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import type { Response } from 'express';
import { Asker } from '../accounts/session.guard.ts';
import type { Account } from '../data/entities.ts';
import { projectId, send } from './answering.ts';
import { EditList, NewEdits, Revision, Stretch } from './bodies.ts';
import { EditsService } from './edits.service.ts';

/** The edits of projects. */
@ApiTags('projects')
@Controller('api/projects')
export class EditsController {
  constructor(private readonly saved: EditsService) {}

  @Get(':id/edits')
  @ApiOkResponse({ type: EditList })
  async edits(
    @Asker() account: Account,
    @Param('id', projectId) id: string,
    @Query() stretch: Stretch,
    @Res() response: Response,
  ) {
    const edits = await this.saved.after(account, id, stretch);
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
    send(response, await this.saved.append(account, id, body));
  }
}
