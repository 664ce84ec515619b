import { Body, Controller, Get, HttpCode, HttpStatus, Inject, Ip, Post, Req, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import { ZodResponse } from 'nestjs-zod';
import { Problem } from '../common/problem.ts';
import { SETTINGS, type Settings } from '../common/settings.ts';
import type { Account } from '../data/entities.ts';
import { GuestsService } from '../demo/guests.service.ts';
import { AccountsService } from './accounts.service.ts';
import { Confirm, Me, SignedUp, SignIn, SignUp, Start, shown } from './bodies.ts';
import { Limits } from './limits.ts';
import { giveCookie, takeCookie } from './sessionCookie.ts';
import { SignUps } from './signUps.service.ts';
import { Open, tokenOf } from './session.guard.ts';

/** The ways in, and the way out. */
@ApiTags('accounts')
@Controller('api')
export class EntryController {
  constructor(
    private readonly accounts: AccountsService,
    private readonly signUps: SignUps,
    private readonly guests: GuestsService,
    private readonly limits: Limits,
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
    takeCookie(response, this.settings);
  }

  private async enter(account: Account, response: Response) {
    giveCookie(response, await this.accounts.openSession(account), this.settings);
    return shown(account);
  }
}
