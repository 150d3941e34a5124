import { TextInput, type TextInputProps } from "@mantine/core";
import { usePad } from "../Keypad";

type FieldProps = Omit<TextInputProps, "onChange"> & { onChange: (typed: string) => void };

/** A field for words, with its label, hint and error; what is typed stays as typed until it is sent. */
export function Field({ onChange, ...rest }: FieldProps) {
  return <TextInput autoComplete="off" {...rest} onChange={(event) => onChange(event.currentTarget.value)} />;
}

/** A field for a figure: on a phone our keypad types into it. */
export function NumberField(props: FieldProps) {
  const pad = usePad();
  return <Field {...pad} inputMode={pad.inputMode === "none" ? "none" : "decimal"} {...props} />;
}
