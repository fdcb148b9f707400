import { Button, Paper, PasswordInput, Stack, Text, TextInput, Title } from "@mantine/core";
import { useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import classes from "./Access.module.css";
import { signIn } from "./signing";

/** The page for who has not signed in yet. */
export function SignIn() {
  const queries = useQueryClient();
  const [name, setName] = useState("");
  const [password, setPassword] = useState("");
  const [wrong, setWrong] = useState("");
  const [busy, setBusy] = useState(false);
  const enter = async (e: FormEvent) => {
    e.preventDefault();
    setBusy(true);
    setWrong("");
    try {
      await signIn(name, password);
      await queries.resetQueries();
    } catch (e) {
      setWrong((e as Error).message);
      setPassword("");
    }
    setBusy(false);
  };
  return (
    <main className={classes.page}>
      <Paper withBorder p="lg" w={360} bg="var(--sheet)">
        <form onSubmit={enter}>
          <Stack>
            <Title order={1} size="h3">
              Rovnik
            </Title>
            <Text size="sm">Sign in to see what is measured here.</Text>
            <TextInput
              label="Name"
              autoComplete="username"
              autoFocus
              value={name}
              onChange={(e) => setName(e.currentTarget.value)}
            />
            <PasswordInput
              label="Password"
              autoComplete="current-password"
              value={password}
              error={wrong}
              onChange={(e) => setPassword(e.currentTarget.value)}
            />
            <Button type="submit" loading={busy}>
              Sign in
            </Button>
          </Stack>
        </form>
      </Paper>
    </main>
  );
}
