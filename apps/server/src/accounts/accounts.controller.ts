import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import {
  Body,
  Controller,
  Delete,
  Get,
  HttpCode,
  HttpStatus,
  Inject,
  Ip,
  Post,
  Put,
  Req,
  Res,
} from '@nestjs/common';
import { ApiOkResponse, ApiTags } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import { createZodDto, ZodResponse } from 'nestjs-zod';
import { z } from 'zod';
import { Problem } from '../common/problem.ts';
import { SETTINGS, type Settings } from '../common/settings.ts';
import type { Account } from '../data/entities.ts';
import { GuestsService } from '../demo/guests.service.ts';
import { AccountsService, SESSION_DAYS } from './accounts.service.ts';
import { ExportService } from './export.service.ts';
import { Limits } from './limits.ts';
import { SignUps } from './signUps.service.ts';
import { Asker, cookieName, Open, tokenOf } from './session.guard.ts';

const email = z.email('This is not an address.').max(254);
const newPassword = z.string().min(10, 'At least 10 characters.').max(200);
class SignUp extends createZodDto(
  z.strictObject({
    email,
    name: z.string().trim().min(1, 'Say what you are called.').max(120),
    password: newPassword,
  }),
) {}
class ChangePassword extends createZodDto(
  z.strictObject({ old: z.string().min(1).max(200), fresh: newPassword }),
) {}
class DeleteAccount extends createZodDto(z.strictObject({ password: z.string().max(200).optional() })) {}
class OpenSession extends createZodDto(
  z.object({ isThis: z.boolean(), usedAt: z.string(), expiresAt: z.string() }),
) {}
class SignIn extends createZodDto(z.strictObject({ email, password: z.string().min(1).max(200) })) {}
const me = z.object({ id: z.string(), email: z.string(), name: z.string(), guest: z.boolean() });
class Me extends createZodDto(me) {}
/** Who is signed in now; or `confirm`, the address that a message was sent to. */
class SignedUp extends createZodDto(me.partial().extend({ confirm: z.string().optional() })) {}
class Confirm extends createZodDto(z.strictObject({ token: z.string().min(1).max(200) })) {}
class Start extends createZodDto(
  z.object({
    demo: z.boolean(),
    /** How long an archived project is kept. */
    archiveDays: z.number(),
    me: me.nullable(),
  }),
) {}

/** Sign-up, sign-in, sessions, and the account itself. */
@ApiTags('accounts')
@Controller('api')
export class AccountsController {
  constructor(
    private readonly accounts: AccountsService,
    private readonly signUps: SignUps,
    private readonly guests: GuestsService,
    private readonly limits: Limits,
    private readonly exports: ExportService,
    @Inject(SETTINGS) private readonly settings: Settings,
  ) {}

  /** What the start screen offers, and who is signed in already. */
  @Open()
  @Get('start')
  @ZodResponse({ status: 200, type: Start })
  async start(@Req() request: Request) {
    const token = tokenOf(request);
    const account = token ? await this.accounts.accountOf(token) : null;
    const { demo, archiveDays } = this.settings;
    return { demo, archiveDays, me: account && shown(account) };
  }

  @Open()
  @Post('sign-up')
  @ZodResponse({ status: 201, type: SignedUp })
  async signUp(@Body() body: SignUp, @Ip() from: string, @Res({ passthrough: true }) response: Response) {
    const account = await this.signUps.begin(body, from);
    return account ? this.enter(account, response) : { confirm: body.email };
  }

  /** By the link of a message. */
  @Open()
  @Post('sign-up/confirm')
  @ZodResponse({ status: 201, type: Me })
  async confirm(@Body() { token }: Confirm, @Res({ passthrough: true }) response: Response) {
    return this.enter(await this.signUps.confirm(token), response);
  }

  @Open()
  @Post('sign-in')
  @ZodResponse({ status: 201, type: Me })
  async signIn(
    @Body() { email: address, password }: SignIn,
    @Ip() from: string,
    @Res({ passthrough: true }) response: Response,
  ) {
    return this.enter(await this.accounts.signIn(address, password, from), response);
  }

  @Open()
  @Post('demo')
  @ZodResponse({ status: 201, type: Me })
  async demo(@Req() request: Request, @Ip() from: string, @Res({ passthrough: true }) response: Response) {
    if (!this.settings.demo) throw new Problem(HttpStatus.NOT_FOUND, 'There is no demo on this server.');
    const token = tokenOf(request);
    const known = token ? await this.accounts.accountOf(token) : null;
    if (known?.guest) return shown(known);
    await this.limits.requireEntry(from);
    return this.enter(await this.guests.enter(), response);
  }

  @Post('sign-out')
  @HttpCode(204)
  async signOut(@Req() request: Request, @Res({ passthrough: true }) response: Response): Promise<void> {
    const token = tokenOf(request);
    if (token) await this.accounts.closeSession(token);
    this.forget(response);
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
    this.forget(response);
  }

  private forget(response: Response): void {
    const { secureCookies: secure } = this.settings;
    response.clearCookie(cookieName({ secure }), { path: '/', secure });
  }

  @Get('me')
  @ZodResponse({ status: 200, type: Me })
  me(@Asker() account: Account) {
    return shown(account);
  }

  private async enter(account: Account, response: Response) {
    const token = await this.accounts.openSession(account);
    response.cookie(cookieName({ secure: this.settings.secureCookies }), token, {
      httpOnly: true,
      sameSite: 'strict',
      secure: this.settings.secureCookies,
      path: '/',
      maxAge: SESSION_DAYS * 86_400_000,
    });
    return shown(account);
  }
}

const shown = ({ id, email: address, name, guest }: Account) => ({ id, email: address, name, guest });
