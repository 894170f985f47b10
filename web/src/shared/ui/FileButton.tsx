import { FileTrigger } from "react-aria-components";
import { Button } from "./Button";

type Props = {
  label: string;
  types: readonly string[];
  isDisabled?: boolean;
  onText: (text: string) => void;
};

/** A button that asks for a file and gives its text. */
export function FileButton({ label, types, isDisabled, onText }: Props) {
  return (
    <FileTrigger
      acceptedFileTypes={types}
      onSelect={(files) => {
        const [file] = files ? [...files] : [];
        if (file) void file.text().then(onText);
      }}
    >
      <Button isDisabled={isDisabled}>{label}</Button>
    </FileTrigger>
  );
}
