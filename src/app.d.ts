import type { Studio } from '$lib/server/studio';

declare global {
  namespace App {
    interface Error {
      message: string;
    }
    interface Locals {
      /** What the person who asks may reach. */
      studio: Studio;
    }
  }
}

export {};
