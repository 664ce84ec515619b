import { Body, Controller, Get, HttpCode, HttpStatus, Inject, Post, Req, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import { createZodDto, ZodResponse } from 'nestjs-zod';
import { z } from 'zod';
import { Problem } from '../common/problem.ts';
import { SETTINGS, type Settings } from '../common/settings.ts';
import type { Account } from '../data/entities.ts';
import { GuestsService } from '../demo/guests.service.ts';
import { AccountsService, SESSION_DAYS } from './accounts.service.ts';
import { Asker, cookieName, Open, tokenOf } from './session.guard.ts';

const email = z.email('This is not an address.').max(254);
class SignUp extends createZodDto(
  z.strictObject({
    email,
    name: z.string().trim().min(1, 'Say what you are called.').max(120),
    password: z.string().min(10, 'At least 10 characters.').max(200),
  }),
) {}
class SignIn extends createZodDto(z.strictObject({ email, password: z.string().min(1).max(200) })) {}
class Me extends createZodDto(z.object({ id: z.string(), email: z.string(), name: z.string() })) {}
class Start extends createZodDto(
  z.object({
    demo: z.boolean(),
    me: z.object({ id: z.string(), email: z.string(), name: z.string() }).nullable(),
  }),
) {}

@ApiTags('accounts')
@Controller('api')
export class AccountsController {
  constructor(
    private readonly accounts: AccountsService,
    private readonly guests: GuestsService,
    @Inject(SETTINGS) private readonly settings: Settings,
  ) {}

  /** What the start screen offers, and who is signed in already. */
  @Open()
  @Get('start')
  @ZodResponse({ status: 200, type: Start })
  async start(@Req() request: Request) {
    const token = tokenOf(request);
    const account = token ? await this.accounts.accountOf(token) : null;
    return { demo: this.settings.demo, me: account && shown(account) };
  }

  @Open()
  @Post('sign-up')
  @ZodResponse({ status: 201, type: Me })
  async signUp(
    @Body() { email: address, name, password }: SignUp,
    @Res({ passthrough: true }) response: Response,
  ) {
    return this.enter(await this.accounts.signUp(address, name, password), response);
  }

  @Open()
  @Post('sign-in')
  @ZodResponse({ status: 201, type: Me })
  async signIn(@Body() { email: address, password }: SignIn, @Res({ passthrough: true }) response: Response) {
    return this.enter(await this.accounts.signIn(address, password), response);
  }

  @Open()
  @Post('demo')
  @ZodResponse({ status: 201, type: Me })
  async demo(@Req() request: Request, @Res({ passthrough: true }) response: Response) {
    if (!this.settings.demo) throw new Problem(HttpStatus.NOT_FOUND, 'There is no demo on this server.');
    const token = tokenOf(request);
    const known = token ? await this.accounts.accountOf(token) : null;
    return known?.guest ? shown(known) : this.enter(await this.guests.enter(), response);
  }

  @Post('sign-out')
  @HttpCode(204)
  async signOut(@Req() request: Request, @Res({ passthrough: true }) response: Response): Promise<void> {
    const token = tokenOf(request);
    if (token) await this.accounts.closeSession(token);
    const { secureCookies: secure } = this.settings;
    response.clearCookie(cookieName(secure), { path: '/', secure });
  }

  @Get('me')
  @ZodResponse({ status: 200, type: Me })
  me(@Asker() account: Account) {
    return shown(account);
  }

  private async enter(account: Account, response: Response) {
    const token = await this.accounts.openSession(account);
    response.cookie(cookieName(this.settings.secureCookies), token, {
      httpOnly: true,
      sameSite: 'strict',
      secure: this.settings.secureCookies,
      path: '/',
      maxAge: SESSION_DAYS * 86_400_000,
    });
    return shown(account);
  }
}

const shown = ({ id, email: address, name }: Account) => ({ id, email: address, name });
