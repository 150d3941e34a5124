import { TextInput, type TextInputProps } from "@mantine/core";

/** A field for a figure: digits on the touch keyboard, no offers; what is typed stays as typed until it is sent. */
export function NumberField(props: TextInputProps) {
  return <TextInput size="md" inputMode="decimal" autoComplete="off" {...props} />;
}
