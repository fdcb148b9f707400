import { Menu, UnstyledButton } from "@mantine/core";

/** A word in the sentence that opens a short list. */
export function Choice(props: {
  label: string;
  value: string;
  choices: Record<string, string>;
  onChange: (v: string) => void;
}) {
  return (
    <Menu position="bottom-start">
      <Menu.Target>
        <UnstyledButton
          aria-label={`${props.label}: ${props.choices[props.value] ?? props.value}`}
          data-choice={props.label}
          style={{ borderBottom: "1.5px dotted var(--ink-soft)", fontSize: "0.92rem" }}
        >
          {props.choices[props.value] ?? props.value}
        </UnstyledButton>
      </Menu.Target>
      <Menu.Dropdown mah="60vh" style={{ overflowY: "auto" }}>
        {Object.entries(props.choices).map(([value, label]) => (
          <Menu.Item key={value} onClick={() => props.onChange(value)}>
            {label}
          </Menu.Item>
        ))}
      </Menu.Dropdown>
    </Menu>
  );
}
