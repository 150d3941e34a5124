import { Modal } from "@mantine/core";
import { keys, keysTitle } from "../../words/trace";

export function KeysHelp({ opened, onClose }: { opened: boolean; onClose: () => void }) {
  return (
    <Modal opened={opened} onClose={onClose} title={keysTitle} centered>
      <dl className="key-list">
        {keys.map(([key, does]) => (
          <div key={key} style={{ display: "contents" }}>
            <dt className="mono">
              <b>{key}</b>
            </dt>
            <dd>{does}</dd>
          </div>
        ))}
      </dl>
    </Modal>
  );
}
