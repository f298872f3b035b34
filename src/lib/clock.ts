/** Where "now" comes from. Facts take their time from a Clock, never from the database or the machine directly. */
export interface Clock {
  /** The moment, as an ISO 8601 instant in UTC. */
  now(): Promise<string>;
}
