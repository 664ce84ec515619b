import { HttpStatus, Inject, Injectable, Logger, type OnModuleDestroy } from '@nestjs/common';
import { createTransport } from 'nodemailer';
import { loggedError } from '../common/errorLog.ts';
import { Problem } from '../common/problem.ts';
import { SETTINGS, type Settings } from '../common/settings.ts';

/** A mail server that answers slowly must not hold a request for long, ms. */
const PATIENCE_MS = 10_000;

/** A message to somebody. */
export interface Message {
  readonly to: string;
  readonly subject: string;
  readonly text: string;
}

/** Messages to people, by the mail server of the settings. */
@Injectable()
export class MailService implements OnModuleDestroy {
  private readonly log = new Logger('Kadrel');
  private readonly transport;

  constructor(@Inject(SETTINGS) private readonly settings: Settings) {
    const { mail } = settings;
    this.transport =
      mail &&
      createTransport(
        { url: mail.server, pool: true, connectionTimeout: PATIENCE_MS, socketTimeout: PATIENCE_MS },
        { from: mail.from },
      );
  }

  get isOn(): boolean {
    return this.transport !== undefined;
  }

  /** Where people open this server. */
  get address(): string {
    return this.settings.mail?.address ?? '';
  }

  onModuleDestroy(): void {
    this.transport?.close();
  }

  /** Throws a Problem where the mail server does not take it. */
  async send(message: Message): Promise<void> {
    try {
      await this.transport!.sendMail({ ...message });
    } catch (error) {
      this.log.error(loggedError(error));
      throw new Problem(
        HttpStatus.SERVICE_UNAVAILABLE,
        'The message could not be sent: the mail server is away. Try again later.',
      );
    }
  }
}
