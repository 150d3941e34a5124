import { IconFileText, IconFileZip, IconTable, IconTag } from "@tabler/icons-react";
import type { SheetOutView } from "../../api/sheetOut";
import { Card } from "../../app/controls/Card";
import { sheetOut as words } from "../../words/sheetOut";

/** The files that go out, each by one touch. */
export function FilesCard({ view }: { view: SheetOutView }) {
  const at = (name: string) => `/api/jobs/${view.job.id}/${name}`;
  const rows = [
    { href: at("report.pdf"), Icon: IconFileText, title: words.sheet, help: words.sheetHelp, isOpened: true },
    ...(view.can_label
      ? [{ href: at("label.pdf"), Icon: IconTag, title: words.label, help: words.labelHelp, isOpened: true }]
      : []),
    { href: at("export.csv"), Icon: IconTable, title: words.csv, help: words.csvHelp, isOpened: false },
    { href: at("export.json"), Icon: IconFileText, title: words.json, help: words.jsonHelp, isOpened: false },
    {
      href: at("archive.zip"),
      Icon: IconFileZip,
      title: words.archive,
      help: words.archiveHelp(view.photos.length),
      isOpened: false,
    },
  ];
  return (
    <Card isStack aria-label={words.files}>
      <h2>{words.files}</h2>
      {rows.map((row, place) => (
        <a
          key={row.href}
          className={place === 0 ? "file first" : "file"}
          href={row.href}
          {...(row.isOpened ? { target: "_blank", rel: "noreferrer" } : { download: "" })}
        >
          <row.Icon size={26} aria-hidden />
          <span>
            <b>{row.title}</b>
            <span>{row.help}</span>
          </span>
        </a>
      ))}
      {!view.can_label && <p className="quiet">{words.noLabel}</p>}
    </Card>
  );
}
