/** How much one address may ask of all servers together, so that no single one keeps the others waiting. */
import type { IncomingMessage } from 'node:http';
import { EntityManager } from '@mikro-orm/postgresql';
import {
  Inject,
  Injectable,
  Logger,
  type OnApplicationBootstrap,
  type OnModuleDestroy,
} from '@nestjs/common';
import { prepared } from '../data/prepared.ts';
import { loggedError } from './errorLog.ts';
import { SETTINGS, type Settings } from './settings.ts';

const WINDOW_MS = 60_000;
/** Servers tell one another what they counted this often: a commit for each request would cost more than the request. */
const EXCHANGE_MS = 1000;
/** Addresses that are counted at once; with more of them counting starts anew. */
const MAX_ADDRESSES = 100_000;

const EXCHANGE = {
  name: 'rates',
  text: `insert into rate_limit as r (key, points, expire)
    select * from unnest($1::text[], $2::int[], $3::bigint[])
    on conflict (key) do update set
      points = case when r.expire = excluded.expire then r.points else 0 end + excluded.points,
      expire = excluded.expire
    returning key, points`,
};

interface Count {
  /** Requests here in this window, and how many of them the other servers know of. */
  own: number;
  exchanged: number;
  /** Requests to other servers, as far as they are known. */
  others: number;
}

/** How often each address has asked, over all servers. */
@Injectable()
export class Rates implements OnApplicationBootstrap, OnModuleDestroy {
  private readonly log = new Logger('Kadrel');
  private readonly verdicts = new WeakMap<object, boolean>();
  private readonly counts = new Map<string, Count>();
  private windowEnd = 0;
  private timer: NodeJS.Timeout | undefined;
  private isAlone = false;

  constructor(
    private readonly em: EntityManager,
    @Inject(SETTINGS) private readonly settings: Settings,
  ) {}

  onApplicationBootstrap(): void {
    this.timer = setInterval(() => {
      this.exchange().then(
        () => (this.isAlone = false),
        (error: unknown) => this.countAlone(error),
      );
    }, EXCHANGE_MS).unref();
  }

  onModuleDestroy(): void {
    clearInterval(this.timer);
  }

  /** Without the others' word each server counts for itself; that is logged once, not every second. */
  private countAlone(error: unknown): void {
    if (!this.isAlone) this.log.error(loggedError(error));
    this.isAlone = true;
  }

  /** Counts the request, once. */
  mayAsk(request: IncomingMessage): boolean {
    const known = this.verdicts.get(request);
    if (known !== undefined) return known;
    const count = this.countOf(addressOf(request, this.settings.trustProxy));
    count.own += 1;
    const verdict = count.own + count.others <= this.settings.rate;
    this.verdicts.set(request, verdict);
    return verdict;
  }

  /** Until everybody may ask again. */
  get waitMs(): number {
    return Math.max(0, this.windowEnd - Date.now());
  }

  /** Tells the other servers what was counted here, and hears what they counted. */
  async exchange(): Promise<void> {
    const end = this.windowEnd;
    const fresh = [...this.counts].filter(([, { own, exchanged }]) => own > exchanged);
    if (fresh.length === 0 || Date.now() >= end) return;
    const added = fresh.map(([, { own, exchanged }]) => own - exchanged);
    for (const [, count] of fresh) count.exchanged = count.own;
    const rows = await this.added(fresh.map(([address], i) => [keyOf(address), added[i]!, end])).catch(
      (error: unknown) => {
        fresh.forEach(([, count], i) => (count.exchanged -= added[i]!));
        throw error;
      },
    );
    const points = new Map(rows.map((row) => [row.key, row.points]));
    for (const [address, count] of fresh) count.others = points.get(keyOf(address))! - count.exchanged;
  }

  private added(counts: readonly (readonly [key: string, points: number, expire: number])[]) {
    const columns = [0, 1, 2].map((i) => counts.map((one) => one[i]));
    return prepared<{ key: string; points: number }[]>(this.em, EXCHANGE, columns);
  }

  /** All servers' windows begin at full minutes, so that they can be added up. */
  private countOf(address: string): Count {
    const now = Date.now();
    if (now >= this.windowEnd || this.counts.size >= MAX_ADDRESSES) {
      this.counts.clear();
      this.windowEnd = (Math.floor(now / WINDOW_MS) + 1) * WINDOW_MS;
    }
    let count = this.counts.get(address);
    if (!count) this.counts.set(address, (count = { own: 0, exchanged: 0, others: 0 }));
    return count;
  }
}

/** Behind so many proxies an address is what the farthest of them says. */
function addressOf({ headers, socket }: IncomingMessage, proxies: number): string {
  const forwarded = proxies > 0 ? String(headers['x-forwarded-for'] ?? '').split(',') : [];
  const named = forwarded.map((one) => one.trim()).filter((one) => one !== '');
  const address = named.at(-Math.min(proxies, named.length)) ?? socket.remoteAddress ?? '';
  return address.slice(0, MAX_ADDRESS);
}
/** Characters: no address is longer, whatever a header says. */
const MAX_ADDRESS = 64;

const keyOf = (address: string) => `requests:${address}`;
