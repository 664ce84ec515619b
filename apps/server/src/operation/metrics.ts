/** Numbers about the running server, in the open text format that monitoring collects. Read on loopback only. */
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import type { NextFunction, Request, Response } from 'express';
import { collectDefaultMetrics, Histogram, Registry } from 'prom-client';
import { pathOf } from './logging.ts';

/** Seconds. */
const BUCKETS = [0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 10];
/** Paths of the API are few; what else is asked for is files of the page, or nothing. */
const API = /^\/api\/[a-z/:-]{1,60}$/;

/** What is counted, for Prometheus. */
export class Metrics {
  readonly registry = new Registry();
  private readonly requests = new Histogram({
    name: 'kadrel_request_seconds',
    help: 'How long requests took, by method, path and status.',
    labelNames: ['method', 'path', 'status'],
    buckets: BUCKETS,
    registers: [this.registry],
  });

  constructor() {
    collectDefaultMetrics({ register: this.registry });
  }

  /** Middleware. */
  readonly timed = (request: Request, response: Response, next: NextFunction): void => {
    this.watch(request, response, performance.now());
    next();
  };

  /** @param started when the request came, as `performance.now()` tells, ms */
  watch(request: IncomingMessage, response: ServerResponse, started: number): void {
    const { method, url } = request;
    const path = pathOf(url!);
    response.once('finish', () => {
      const labels = { method, path: API.test(path) ? path : 'other', status: String(response.statusCode) };
      this.requests.observe(labels, (performance.now() - started) / 1000);
    });
  }

  /** Answers `GET /metrics` on loopback. */
  listen(port: number): Server {
    return createServer((request, response) => {
      if (request.url !== '/metrics') {
        response.writeHead(404).end();
        return;
      }
      this.registry.metrics().then(
        (text) => response.writeHead(200, { 'Content-Type': this.registry.contentType }).end(text),
        () => response.writeHead(500).end(),
      );
    }).listen(port, '127.0.0.1');
  }
}
