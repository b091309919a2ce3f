/// <reference types="astro/client" />

declare namespace App {
  interface Locals {
    /** The signed-in person; null without sign-in. */
    person: import('@/core/people/person').Person | null;
    /** Where the request comes from. */
    address: string;
    /** A fault of the disk or another program, for the error page. */
    fault?: 'server.busy' | 'server.disk-full' | 'server.disk';
    /** Everybody signs in here. */
    signsIn: boolean;
  }
}
