// What the application has to say in passing.

export interface Notice {
  id: number;
  tone: 'done' | 'wrong';
  text: string;
}

export class Notices {
  list: Notice[] = $state([]);
  #id = 0;

  tell(tone: Notice['tone'], text: string) {
    if (this.list.some((notice) => notice.text === text)) return;
    const id = ++this.#id;
    this.list = [...this.list.slice(-2), { id, tone, text }];
    setTimeout(() => this.dismiss(id), tone === 'wrong' ? 12_000 : 4000);
  }

  dismiss(id: number) {
    this.list = this.list.filter((notice) => notice.id !== id);
  }
}
