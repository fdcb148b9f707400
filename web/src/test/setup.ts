// What modules ask of a browser when they are loaded; nothing in these tests is drawn.
const kept = new Map<string, string>();
const storage = {
  getItem: (key: string) => kept.get(key) ?? null,
  setItem: (key: string, value: string) => kept.set(key, value),
};
Object.assign(globalThis, {
  sessionStorage: storage,
  localStorage: storage,
  document: { addEventListener: () => {} },
});
