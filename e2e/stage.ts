/** What most tests in the browser begin with: a server with its firm, and a member signed in on a phone and on a wide screen. */
import type { Browser, Page } from 'puppeteer-core';
import { launch, openPage, PHONE, signIn, WIDE } from './browser';
import { MEMBER, Office } from './office';
import { ServerProcess } from './server';

export class Stage {
  private constructor(
    readonly server: ServerProcess,
    readonly office: Office,
    readonly browser: Browser,
    readonly phone: Page,
    readonly wide: Page,
    /** Whatever fell over on the pages. */
    readonly errors: string[],
  ) {}

  static async set(env: NodeJS.ProcessEnv = {}): Promise<Stage> {
    const server = await ServerProcess.start(env);
    const office = new Office(server);
    await office.setUp();
    const browser = await launch();
    const errors: string[] = [];
    const open = async (viewport: typeof PHONE | typeof WIDE) => {
      const page = await openPage(browser, viewport);
      page.on('pageerror', (e) => errors.push(String(e)));
      await signIn(page, server.url, MEMBER.email, MEMBER.password);
      return page;
    };
    return new Stage(server, office, browser, await open(PHONE), await open(WIDE), errors);
  }

  async end(): Promise<void> {
    await this.browser.close();
    await this.server.remove();
  }
}
