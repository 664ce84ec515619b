export interface MailboxMessage {
  readonly to: readonly string[];
  readonly subject: string;
  readonly text: string;
}
/** A stand-in for a mail server, on loopback; port 0 for any. */
export function startMailbox(
  port: number,
  take: (message: MailboxMessage) => void,
): Promise<{ readonly address: string; close(): Promise<void> }>;
