// The certificate: what was weighed, why nothing is lower, what is barred, what is no way, and the digest that can be checked again.
import { useQuery } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { Fragment, type ReactNode } from "react";
import { api, ask } from "../api/client";
import type { Certificate } from "../api/types";
import { useDesk } from "../desk/useDesk";
import { count } from "../ui/format";
import { Sheet } from "../ui/Sheet";

export function CertificateSheet({ close }: { close: () => void }) {
  const { opened } = useDesk();
  const asked = useQuery({
    queryKey: ["certificate", opened.id, opened.revision],
    queryFn: ({ signal }) =>
      ask(api.GET("/api/households/{id}/certificate", { params: { path: { id: opened.id } }, signal })),
  });
  const about = `${opened.household.name} household, ${opened.outcome.year}, revision ${opened.revision}`;
  return (
    <Sheet title="Certificate" about={about} onClose={close} size="wide">
      {asked.error && <p role="alert">{asked.error.message}</p>}
      {!asked.data && !asked.error && <p className="text-soft">Weighing every way once more…</p>}
      {asked.data && <Certified certificate={asked.data} />}
    </Sheet>
  );
}

function Certified({ certificate }: { certificate: Certificate }) {
  const { opened } = useDesk();
  const { statements, barred, beside, digest } = certificate;
  return (
    <>
      <dl className="grid grid-cols-[11rem_1fr] gap-x-5 max-md:grid-cols-1">
        {statements.map(({ about, words }) => (
          <Fragment key={about}>
            <dt className="border-t border-rule py-1.5 font-bold">{about}</dt>
            <dd className="border-t border-rule py-1.5">{words}</dd>
          </Fragment>
        ))}
        <dt className="border-y border-rule py-1.5 font-bold">Digest</dt>
        <dd className="border-y border-rule py-1.5 font-mono text-[12px] break-words">
          {digest.match(/.{1,8}/g)?.join(" ")}
        </dd>
      </dl>
      <Folded title={`${count(barred.length, "option")} barred, each by its rule`} many={barred.length}>
        {barred.map((one) => (
          <Row key={`${one.decision} ${one.option}`} what={`${one.decision}: ${one.option}`} {...one} />
        ))}
      </Folded>
      <Folded title={`${beside.length} chosen beside the return: no way`} many={beside.length}>
        {beside.map((one) => (
          <Row key={one.what} {...one} />
        ))}
      </Folded>
      <p className="mt-4 flex flex-wrap gap-x-5">
        <Link to="/h/$id/hand-over" params={{ id: opened.id }} search={{}} className="text-petrol underline">
          Print it with the pack
        </Link>
        <a className="text-petrol underline" href={`/api/households/${opened.id}/certificate/file`}>
          The file that can be verified
        </a>
        <span className="text-soft">It holds all facts, identification numbers too.</span>
      </p>
    </>
  );
}

function Folded({ title, many, children }: { title: string; many: number; children: ReactNode }) {
  if (many === 0) return null;
  return (
    <details className="mt-3">
      <summary className="cursor-pointer font-bold">{title}</summary>
      <ul>{children}</ul>
    </details>
  );
}

function Row({ what, why, cite }: { what: string; why: string; cite: string }) {
  return (
    <li className="row-line grid grid-cols-[1fr_1fr_9rem] gap-x-4 py-1 max-md:block">
      <span>{what}</span>
      <span className="text-soft">{why}</span>
      <span className="text-soft">{cite}</span>
    </li>
  );
}
