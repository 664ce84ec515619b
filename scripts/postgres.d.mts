export interface TestCluster {
  /** The address of a database, made where it is not there. */
  database(name: string): string;
  urlOf(name: string): string;
  crash(): Promise<void>;
  stop(): Promise<void>;
}
export function startTestCluster(options?: { durable?: boolean }): Promise<TestCluster>;
/** The path of a program of the newest server that is installed. */
export function binaryOf(name: string): string;
