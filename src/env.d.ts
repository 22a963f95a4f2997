/// <reference types="astro/client" />

declare namespace App {
  interface Locals {
    rt: import('./server/runtime-type').Runtime;
    /** who is signed in */
    actor: import('./server/accounts/roles').Actor | null;
    now: import('./server/site/clock').Now;
    settings: import('./server/site/settings').SiteSettings;
    /** the request came through the operator's socket */
    operator?: boolean;
    /** the address of whoever asks, as our own server knows it; absent for developers */
    address?: string;
    /** the request came through a proxy, declared or not */
    passedOn?: boolean;
    /** a request that reads though it is a POST: what readers see stays as it is */
    unchanged?: boolean;
    /** the request was here before: a page in French is the English one, handed on */
    handedOn?: boolean;
    /** the site's own address asked for by a phone, where phones begin with another view */
    phone?: boolean;
    /** the page is for a copy of the site in plain files */
    plain?: import('./server/plain-files/ask').CopyOf | undefined;
    /** the page is for such a copy without a server behind it: nobody would answer a search or a form */
    alone?: boolean;
    /** the page leads below the site's path of its host already: it was made for whoever asked first */
    placed?: boolean;
    style: import('./core/phrase/format').Style;
    /** in which language the page is, with its words and its links */
    reader: import('./components/reader').Reader;
    /** the path as the site's own language has it */
    path?: string;
    /** the language that the address asks for */
    language?: import('./core/phrase/language').Language;
  }
}
