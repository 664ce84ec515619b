/** The application as it is served: security headers, the page's files, the API and its description. */
import { existsSync } from 'node:fs';
import type { IncomingMessage, RequestListener, Server, ServerResponse } from 'node:http';
import { NestFactory } from '@nestjs/core';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { DocumentBuilder, SwaggerModule } from '@nestjs/swagger';
import helmet from 'helmet';
import { Logger } from 'nestjs-pino';
import { cleanupOpenApiDoc } from 'nestjs-zod';
import sirv from 'sirv';
import type { Metrics } from './operation/metrics.ts';
import { RequestLog } from './operation/requestLog.ts';
import { QuickSave, type Around } from './projects/quickSave.ts';
import { MAX_LIGHT } from './projects/tasks.ts';
import { AppModule } from './app.module.ts';
import { NOT_STORED, notStored, sameSiteOnly } from './common/sameSite.ts';
import type { Settings } from './common/settings.ts';

const MAX_JSON = '4mb';

const isJson = (request: IncomingMessage) =>
  request.headers['content-type']?.startsWith('application/json') ?? false;
/** Small enough to be read here; what is larger, or does not say, is passed on as bytes. */
const isLight = (request: IncomingMessage) =>
  Number(request.headers['content-length'] ?? Infinity) <= MAX_LIGHT;

/** The kernel's glue compiles small functions from text, which only its own worker may do: the page may not. */
const WORKER_POLICY = "default-src 'self'; script-src 'self' 'unsafe-eval' 'wasm-unsafe-eval'";

/** The application, not listening yet. */
export async function createApp(settings: Settings, metrics?: Metrics): Promise<NestExpressApplication> {
  const app = await NestFactory.create<NestExpressApplication>(AppModule.with(settings), {
    bufferLogs: true,
    bodyParser: false,
  });
  app.useLogger(app.get(Logger));
  if (metrics) app.use(metrics.timed);
  // Nothing of the API is kept by browsers, and pictures and files have tags of their own.
  app.set('etag', false);
  // Behind a proxy the address of who asks is the proxy's word.
  app.set('trust proxy', settings.trustProxy);
  app.use('/api', notStored, sameSiteOnly);
  const protect = protection(settings);
  app.use(protect);
  app.useBodyParser('json', { limit: MAX_JSON, type: (request) => isJson(request) && isLight(request) });
  app.useBodyParser('raw', { limit: MAX_JSON, type: (request) => isJson(request) });
  app.useBodyParser('raw', { limit: '3mb', type: ['image/png'] });
  if (settings.webFolder !== undefined && existsSync(settings.webFolder))
    app.use(servePage(settings.webFolder));
  const description = new DocumentBuilder()
    .setTitle('Kadrel')
    .setDescription('Accounts, projects and their edits. Lengths in mm, angles in degrees.')
    .setVersion('1')
    .addCookieAuth('kadrel_session')
    .build();
  SwaggerModule.setup('api/docs', app, () =>
    cleanupOpenApiDoc(SwaggerModule.createDocument(app, description)),
  );
  answerSavesFirst(app, headersOf(protect), metrics);
  return app;
}

/** Plain saves are answered before the router. */
function answerSavesFirst(
  app: NestExpressApplication,
  headers: Readonly<Record<string, string>>,
  metrics: Metrics | undefined,
): void {
  const server: Server = app.getHttpServer();
  const [route] = server.listeners('request') as RequestListener[];
  const log = app.get(RequestLog);
  const watch: Around['watch'] = (...seen) => {
    metrics?.watch(...seen);
    log.write(...seen);
  };
  server.removeAllListeners('request');
  server.on('request', app.get(QuickSave).before(route!, { headers, watch }));
}

/** What the middleware sets, with what every answer of the API carries. */
function headersOf(middleware: ReturnType<typeof helmet>): Record<string, string> {
  const headers: Record<string, string> = Object.fromEntries([NOT_STORED]);
  const response = {
    setHeader: (name: string, value: string) => (headers[name] = value),
    removeHeader: (name: string) => delete headers[name],
  };
  middleware({} as IncomingMessage, response as unknown as ServerResponse, () => undefined);
  return headers;
}

/** Headers that browsers keep to. */
const protection = (settings: Settings) =>
  helmet({
    strictTransportSecurity: settings.secureCookies,
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'self'"],
        scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
        // Styles set from script on single elements, as positions of labels are, count as inline.
        styleSrc: ["'self'", "'unsafe-inline'"],
        imgSrc: ["'self'", 'data:', 'blob:'],
        workerSrc: ["'self'"],
        connectSrc: ["'self'"],
        fontSrc: ["'self'"],
        objectSrc: ["'none'"],
        baseUri: ["'none'"],
        frameAncestors: ["'none'"],
        formAction: ["'self'"],
      },
    },
  });

const servePage = (folder: string) =>
  sirv(folder, {
    // Files are looked at when they are asked for: a list made at the start would break, and end, a server beneath which the page is
    // built anew.
    dev: true,
    brotli: true,
    gzip: true,
    etag: true,
    single: true,
    ignores: [/^\/api(\/|$)/],
    setHeaders(response, path) {
      if (/worker-[\w-]+\.js$/.test(path)) response.setHeader('Content-Security-Policy', WORKER_POLICY);
      response.setHeader(
        'Cache-Control',
        path.startsWith('/assets/') ? 'public, max-age=31536000, immutable' : 'no-cache',
      );
    },
  });
