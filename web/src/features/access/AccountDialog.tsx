import {
  Alert,
  Button,
  Divider,
  Group,
  Modal,
  PasswordInput,
  Select,
  Stack,
  Table,
  Text,
  TextInput,
  Title,
} from "@mantine/core";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, type ReactNode, useState } from "react";
import { api } from "../../api/client";
import { ConfirmButton } from "../../components/ConfirmButton";
import { signOut } from "./signing";
import { type Account, type Me, ROLES, type Role } from "./useMe";

const ACCOUNTS = "/api/accounts";

/** One's own account, and for who administers those of the others. */
export function AccountDialog({ me, onClose }: { me: Me; onClose: () => void }) {
  const [wrong, setWrong] = useState("");
  const attempt = async (work: () => Promise<unknown>) => {
    setWrong("");
    try {
      await work();
      return true;
    } catch (e) {
      setWrong((e as Error).message);
      return false;
    }
  };
  return (
    <Modal opened onClose={onClose} title={me.name ? "Account" : "Accounts"} size="lg">
      <Stack gap="sm">
        {me.name ? (
          <Group justify="space-between">
            <Text>
              {me.name} <b>{me.rights}</b>.
            </Text>
            <Button variant="default" size="xs" onClick={() => attempt(signOut)}>
              Sign out
            </Button>
          </Group>
        ) : (
          <Text size="sm">
            Nobody needs to sign in: whoever reaches this page may do everything. After the first
            account is made, everybody signs in. The first one administers.
          </Text>
        )}
        {wrong && (
          <Alert color="red" variant="light" p={8}>
            {wrong}
          </Alert>
        )}
        {me.ownPassword && <OwnPassword attempt={attempt} />}
        {me.role === "ADMINISTER" && <Others me={me} attempt={attempt} />}
      </Stack>
    </Modal>
  );
}

type Attempt = (work: () => Promise<unknown>) => Promise<boolean>;

/** Fields in one line with their button. */
function Line(props: { onDone: () => Promise<void>; done: string; children: ReactNode }) {
  return (
    <form
      onSubmit={(e: FormEvent) => {
        e.preventDefault();
        props.onDone();
      }}
    >
      <Group align="end" gap="xs" wrap="nowrap">
        {props.children}
        <Button type="submit" size="sm" style={{ flex: "none" }}>
          {props.done}
        </Button>
      </Group>
    </form>
  );
}

function NewPassword(props: { label: string; value: string; onChange: (v: string) => void }) {
  return (
    <PasswordInput
      flex={1}
      label={props.label}
      autoComplete="new-password"
      placeholder="10 or more"
      value={props.value}
      onChange={(e) => props.onChange(e.currentTarget.value)}
    />
  );
}

function OwnPassword({ attempt }: { attempt: Attempt }) {
  const [present, setPresent] = useState("");
  const [wanted, setWanted] = useState("");
  return (
    <Line
      done="Change"
      onDone={async () => {
        await attempt(() => api.put(`${ACCOUNTS}/me/password`, { present, wanted }));
      }}
    >
      <PasswordInput
        flex={1}
        label="Present password"
        autoComplete="current-password"
        value={present}
        onChange={(e) => setPresent(e.currentTarget.value)}
      />
      <NewPassword label="New password" value={wanted} onChange={setWanted} />
    </Line>
  );
}

function Others({ me, attempt }: { me: Me; attempt: Attempt }) {
  const queries = useQueryClient();
  const { data: accounts = [] } = useQuery({
    queryKey: ["accounts"],
    queryFn: () => api.get<Account[]>(ACCOUNTS),
  });
  const first = accounts.length === 0 && !me.name;
  const [name, setName] = useState("");
  const [role, setRole] = useState<Role>("MEASURE");
  const [password, setPassword] = useState("");
  const change = (work: () => Promise<unknown>) =>
    attempt(async () => {
      await work();
      await queries.invalidateQueries({ queryKey: ["accounts"] });
      await queries.invalidateQueries({ queryKey: ["me"] });
    });
  return (
    <>
      {me.name && <Divider />}
      {accounts.length > 0 && (
        <>
          <Title order={2} size="h6">
            Who may sign in
          </Title>
          <Table aria-label="Accounts" verticalSpacing={4}>
            <Table.Thead>
              <Table.Tr>
                <Table.Th>Name</Table.Th>
                <Table.Th>Rights</Table.Th>
                <Table.Th>New password</Table.Th>
                <Table.Td />
              </Table.Tr>
            </Table.Thead>
            <Table.Tbody>
              {accounts.map((a) => (
                <AccountRow key={a.id} account={a} change={change} />
              ))}
            </Table.Tbody>
          </Table>
        </>
      )}
      <Line
        done={first ? "Make the first account" : "Make the account"}
        onDone={async () => {
          const made = await change(() =>
            api.post(ACCOUNTS, { name, role: first ? "ADMINISTER" : role, password }),
          );
          if (made) {
            setName("");
            setPassword("");
          }
        }}
      >
        <TextInput
          flex={1}
          label="Name"
          autoComplete="off"
          value={name}
          onChange={(e) => setName(e.currentTarget.value)}
        />
        {!first && (
          <Select
            w={130}
            label="Rights"
            allowDeselect={false}
            data={ROLES}
            value={role}
            onChange={(v) => v && setRole(v as Role)}
          />
        )}
        <NewPassword label="Password" value={password} onChange={setPassword} />
      </Line>
    </>
  );
}

function AccountRow(props: {
  account: Account;
  change: (work: () => Promise<unknown>) => unknown;
}) {
  const { account: a, change } = props;
  const [password, setPassword] = useState("");
  const patch = (what: { role?: Role; password?: string }) =>
    change(() => api.patch(`${ACCOUNTS}/${a.id}`, what));
  return (
    <Table.Tr>
      <Table.Td>{a.name}</Table.Td>
      <Table.Td>
        <Select
          aria-label={`Rights of ${a.name}`}
          size="xs"
          w={120}
          allowDeselect={false}
          data={ROLES}
          value={a.role}
          onChange={(v) => v && patch({ role: v as Role })}
        />
      </Table.Td>
      <Table.Td>
        <Group gap={4} wrap="nowrap">
          <PasswordInput
            aria-label={`New password of ${a.name}`}
            size="xs"
            w={150}
            autoComplete="new-password"
            value={password}
            onChange={(e) => setPassword(e.currentTarget.value)}
          />
          <Button
            size="compact-xs"
            variant="default"
            disabled={!password}
            aria-label={`Set the password of ${a.name}`}
            onClick={async () => {
              await patch({ password });
              setPassword("");
            }}
          >
            Set
          </Button>
        </Group>
      </Table.Td>
      <Table.Td ta="right">
        <ConfirmButton
          size="compact-xs"
          question={`Remove ${a.name}?`}
          onConfirm={() => change(() => api.remove(`${ACCOUNTS}/${a.id}`))}
        >
          Remove
        </ConfirmButton>
      </Table.Td>
    </Table.Tr>
  );
}
