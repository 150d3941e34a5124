import {
  IconCertificate,
  IconClipboardText,
  IconFileExport,
  IconFocusCentered,
  IconListNumbers,
  IconPlugConnectedX,
  IconShieldCheck,
  IconTool,
} from "@tabler/icons-react";
import { frame } from "../words/frame";

/** The stages of a job in working order; the key behind g that leads there. */
export const STAGES = [
  { id: "intake", key: "1", words: frame.intake, Icon: IconClipboardText },
  { id: "safe", key: "2", words: frame.safe, Icon: IconShieldCheck },
  { id: "codes", key: "3", words: frame.codes, Icon: IconListNumbers },
  { id: "trace", key: "4", words: frame.trace, Icon: IconFocusCentered },
  { id: "trip", key: "5", words: frame.trip, Icon: IconPlugConnectedX },
  { id: "repair", key: "6", words: frame.repair, Icon: IconTool },
  { id: "prove", key: "7", words: frame.prove, Icon: IconCertificate },
  { id: "sheet-out", key: "8", words: frame.sheetOut, Icon: IconFileExport },
] as const;
