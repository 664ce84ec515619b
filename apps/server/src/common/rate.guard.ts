/** How much one address may ask of this server, so that no single one keeps the others waiting. */
import { CanActivate, ExecutionContext, HttpStatus, Inject, Injectable, SetMetadata } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import type { Request, Response } from 'express';
import { RateLimiterMemory, RateLimiterRes } from 'rate-limiter-flexible';
import { Problem } from './problem.ts';
import { SETTINGS, type Settings } from './settings.ts';

const MINUTE_S = 60;
const UNCOUNTED = 'uncounted';

/** A route that may be asked as often as one likes. */
export const Uncounted = () => SetMetadata(UNCOUNTED, true);

/** Counted in memory: a count that all servers share would cost a commit for each request. */
@Injectable()
export class RateGuard implements CanActivate {
  private readonly limiter: RateLimiterMemory;

  constructor(
    private readonly reflector: Reflector,
    @Inject(SETTINGS) { rate }: Settings,
  ) {
    this.limiter = new RateLimiterMemory({ points: rate, duration: MINUTE_S });
  }

  async canActivate(context: ExecutionContext): Promise<boolean> {
    if (this.reflector.getAllAndOverride<boolean>(UNCOUNTED, [context.getHandler(), context.getClass()]))
      return true;
    const http = context.switchToHttp();
    try {
      await this.limiter.consume(http.getRequest<Request>().ip ?? '');
      return true;
    } catch (error) {
      if (!(error instanceof RateLimiterRes)) throw error;
      http.getResponse<Response>().setHeader('Retry-After', Math.ceil(error.msBeforeNext / 1000));
      throw new Problem(HttpStatus.TOO_MANY_REQUESTS, 'Too many requests. Wait a minute and try again.');
    }
  }
}
