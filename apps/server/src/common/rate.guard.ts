/** Requests of an address that asks too often are refused, but for those of routes that are not counted. */
import { CanActivate, ExecutionContext, HttpStatus, Injectable, SetMetadata } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import type { Request, Response } from 'express';
import { Problem } from './problem.ts';
import { Rates } from './rates.ts';

const UNCOUNTED = 'uncounted';

/** A route that may be asked as often as one likes. */
export const Uncounted = () => SetMetadata(UNCOUNTED, true);

/** Refuses addresses that ask too often. */
@Injectable()
export class RateGuard implements CanActivate {
  constructor(
    private readonly reflector: Reflector,
    private readonly rates: Rates,
  ) {}

  canActivate(context: ExecutionContext): boolean {
    if (this.reflector.getAllAndOverride<boolean>(UNCOUNTED, [context.getHandler(), context.getClass()]))
      return true;
    const http = context.switchToHttp();
    if (this.rates.mayAsk(http.getRequest<Request>())) return true;
    http.getResponse<Response>().setHeader('Retry-After', Math.ceil(this.rates.waitMs / 1000));
    throw new Problem(HttpStatus.TOO_MANY_REQUESTS, 'Too many requests. Wait a minute and try again.');
  }
}
