/** Speaks with a running server as a signed-in person does. */
export class ServerClient {
  private cookie = '';

  constructor(readonly base: string) {}

  /** The cookie of the session, for requests that this does not make. */
  get cookieHeader(): string {
    return this.cookie;
  }

  private async ask(method: string, path: string, body?: unknown): Promise<Response> {
    const isForm = body instanceof FormData;
    const response = await fetch(`${this.base}${path}`, {
      method,
      headers: { 'x-mailbag': '1', cookie: this.cookie, ...(body !== undefined && !isForm ? { 'content-type': 'application/json' } : {}) },
      ...(body === undefined ? {} : { body: isForm ? body : JSON.stringify(body) }),
    });
    if (!response.ok) throw new Error(`${method} ${path}: ${response.status} ${await response.text()}`);
    const set = response.headers.get('set-cookie');
    if (set) this.cookie = set.split(';')[0]!;
    return response;
  }

  async get<T>(path: string): Promise<T> {
    return (await (await this.ask('GET', path)).json()) as T;
  }
  async send<T>(method: 'POST' | 'PUT' | 'PATCH' | 'DELETE', path: string, body?: unknown): Promise<T> {
    const text = await (await this.ask(method, path, body)).text();
    return (text ? JSON.parse(text) : undefined) as T;
  }
  async bytes(path: string): Promise<Uint8Array> {
    return new Uint8Array(await (await this.ask('GET', path)).arrayBuffer());
  }
  async upload<T>(path: string, file: string, bytes: Uint8Array): Promise<T> {
    const form = new FormData();
    form.append('file', new Blob([new Uint8Array(bytes)]), file);
    return (await (await this.ask('POST', path, form)).json()) as T;
  }
  /** Asks again until the answer suits. @throws Error after the time is over */
  async until<T>(path: string, suits: (answer: T) => boolean, seconds = 150): Promise<T> {
    for (const end = Date.now() + seconds * 1000; ;) {
      const answer = await this.get<T>(path);
      if (suits(answer)) return answer;
      if (Date.now() >= end)
        throw new Error(`${path} did not come to what was waited for within ${seconds} s; it is ${JSON.stringify(answer).slice(0, 600)}`);
      await new Promise((done) => setTimeout(done, 150));
    }
  }
}
