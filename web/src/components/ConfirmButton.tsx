import { Button, type ButtonProps } from "@mantine/core";
import { useEffect, useState } from "react";

const ASKING_MILLIS = 5000;

interface Props extends ButtonProps {
  /** What the button says when it asks back. */
  question: string;
  onConfirm: () => void;
  children: string;
}

/** A button for what cannot be undone: the first press asks back, the second does it. */
export function ConfirmButton({ question, onConfirm, children, ...look }: Props) {
  const [asking, setAsking] = useState(false);
  useEffect(() => {
    if (asking) {
      const timer = setTimeout(() => setAsking(false), ASKING_MILLIS);
      return () => clearTimeout(timer);
    }
  }, [asking]);
  return (
    <Button
      {...look}
      color="red"
      variant={asking ? "filled" : "subtle"}
      onClick={() => {
        setAsking(!asking);
        if (asking) {
          onConfirm();
        }
      }}
      onBlur={() => setAsking(false)}
    >
      {asking ? question : children}
    </Button>
  );
}
