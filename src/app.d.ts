import type { Studio } from '$lib/server/studio';

declare global {
  namespace App {
    interface Error {
      message: string;
    }
    interface Locals {
      /** What the person who asks may reach. */
      studio: Studio;
      /** Whether one has signed in, and may sign out. */
      signedIn?: boolean;
    }
  }
}

export {};
