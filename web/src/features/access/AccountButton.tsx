import { ActionIcon, Button } from "@mantine/core";
import { IconUser } from "@tabler/icons-react";
import { useState } from "react";
import { useCommands } from "../../app/commands";
import { later } from "../../components/later";
import classes from "./Access.module.css";
import { useMe } from "./useMe";

const AccountDialog = later(async () => (await import("./AccountDialog")).AccountDialog);

/** Who has signed in, what they may do, and the way to more. */
export function AccountButton() {
  const me = useMe();
  const [open, setOpen] = useState(false);
  useCommands([
    {
      name: "account",
      argument: "",
      hint: "who may use Rovnik",
      run: () => {
        setOpen(true);
        return "";
      },
    },
  ]);
  if (!me) {
    return null;
  }
  return (
    <>
      {me.name ? (
        <Button
          variant="subtle"
          size="compact-sm"
          leftSection={<IconUser size={17} />}
          rightSection={
            me.role === "VIEW" ? <span className={classes.tag}>looks only</span> : undefined
          }
          onClick={() => setOpen(true)}
        >
          {me.name}
        </Button>
      ) : (
        <ActionIcon
          variant="subtle"
          aria-label="Accounts"
          title="Accounts"
          onClick={() => setOpen(true)}
        >
          <IconUser size={20} />
        </ActionIcon>
      )}
      {open && <AccountDialog me={me} onClose={() => setOpen(false)} />}
    </>
  );
}
