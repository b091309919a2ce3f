/// <reference types="astro/client" />

declare namespace App {
  interface Locals {
    /** Who is signed in; null where nobody signs in. */
    person: import('@/core/people/person').Person | null;
    /** Where the request comes from. */
    address: string;
    /** Everybody signs in here. */
    signsIn: boolean;
  }
}
