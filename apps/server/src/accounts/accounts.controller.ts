import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { Body, Controller, Delete, Get, HttpCode, Inject, Put, Req, Res } from '@nestjs/common';
import { ApiOkResponse, ApiTags } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import { ZodResponse } from 'nestjs-zod';
import { SETTINGS, type Settings } from '../common/settings.ts';
import type { Account } from '../data/entities.ts';
import { AccountsService } from './accounts.service.ts';
import { ChangePassword, DeleteAccount, Me, OpenSession, shown } from './bodies.ts';
import { ExportService } from './export.service.ts';
import { takeCookie } from './sessionCookie.ts';
import { Asker, tokenOf } from './session.guard.ts';

/** The account that is signed in, and where. */
@ApiTags('accounts')
@Controller('api')
export class AccountsController {
  constructor(
    private readonly accounts: AccountsService,
    private readonly exports: ExportService,
    @Inject(SETTINGS) private readonly settings: Settings,
  ) {}

  @Get('me')
  @ZodResponse({ status: 200, type: Me })
  me(@Asker() account: Account) {
    return shown(account);
  }

  /** Where this account is signed in. */
  @Get('sessions')
  @ZodResponse({ status: 200, type: [OpenSession] })
  sessions(@Asker() account: Account, @Req() request: Request) {
    return this.accounts.sessions(account, tokenOf(request)!);
  }

  /** Signs out everywhere else. */
  @Delete('sessions')
  @HttpCode(204)
  closeOthers(@Asker() account: Account, @Req() request: Request): Promise<void> {
    return this.accounts.closeOthers(account, tokenOf(request)!);
  }

  /** Signs out everywhere else. */
  @Put('password')
  @HttpCode(204)
  changePassword(
    @Asker() account: Account,
    @Body() change: ChangePassword,
    @Req() request: Request,
  ): Promise<void> {
    return this.accounts.changePassword(account, change, tokenOf(request)!);
  }

  /** All that the account has, as one JSON file: its projects, each with its document and its edits. */
  @Get('account/export')
  @ApiOkResponse({ description: 'The account and its projects, each with its document and its edits.' })
  async export(@Asker() account: Account, @Res() response: Response): Promise<void> {
    response.attachment('kadrel-account.json').type('application/json');
    await pipeline(Readable.from(this.exports.textOf(account)), response);
  }

  /** For good, with all projects. */
  @Delete('account')
  @HttpCode(204)
  async delete(
    @Asker() account: Account,
    @Body() { password }: DeleteAccount,
    @Res({ passthrough: true }) response: Response,
  ): Promise<void> {
    await this.accounts.delete(account, password);
    takeCookie(response, this.settings);
  }
}
