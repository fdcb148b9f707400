import { request, SIGNED_OUT } from "../../api/client";

/** Asks to be let in; the server remembers this browser until it is closed. */
export async function signIn(username: string, password: string) {
  await fetch("/api/health"); // brings the token for what follows
  await request<void>("POST", "/login", new URLSearchParams({ username, password }));
}

export async function signOut() {
  await request<void>("POST", "/logout");
  window.dispatchEvent(new Event(SIGNED_OUT));
}
