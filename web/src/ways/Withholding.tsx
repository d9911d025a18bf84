// What would be withheld in the year that runs under each combination that a couple may ask for: it moves money within the year.
import { useQuery } from "@tanstack/react-query";
import { api, ask } from "../api/client";
import { useDesk } from "../desk/useDesk";
import { balance, exact, units } from "../ui/format";

function useWithholding() {
  const { opened } = useDesk();
  const { id, revision } = opened;
  const asked = useQuery({
    queryKey: ["withholding", id, revision],
    queryFn: ({ signal }) =>
      ask(api.GET("/api/households/{id}/withholding", { params: { path: { id } }, signal })),
    staleTime: Number.POSITIVE_INFINITY,
    placeholderData: (before, query) => (query?.queryKey[1] === id ? before : undefined),
  });
  return asked.data ?? null;
}

export function Withholding() {
  const told = useWithholding();
  if (!told) return null;
  const names = told.options[0]?.months.map((month) => month.whose) ?? [];
  const settled = told.options.some((option) => option.left);
  return (
    <section aria-label={told.what} className="border-t border-rule pt-2.5 pb-1.5">
      <b>{told.what}</b>
      <table className="w-full border-collapse">
        <thead>
          <tr className="text-[12px] text-soft">
            <th scope="col" className="text-left font-normal">
              Withheld
            </th>
            {names.map((name) => (
              <th key={name} scope="col" className="pl-3 text-right font-normal">
                {name}, a month
              </th>
            ))}
            <th scope="col" className="pl-3 text-right font-normal">
              A year
            </th>
            {settled && (
              <th scope="col" className="pl-3 text-right font-normal">
                Then
              </th>
            )}
          </tr>
        </thead>
        <tbody>
          {told.options.map((option) => (
            <tr key={option.label} className="align-baseline">
              <th scope="row" className="py-0.5 text-left font-normal">
                {option.label}
              </th>
              {option.months.map((month) => (
                <td key={month.whose} className="pl-3 text-right whitespace-nowrap">
                  {exact(month.amount)}
                </td>
              ))}
              <td className="pl-3 text-right whitespace-nowrap">{units(option.year)}</td>
              {option.left && <td className="pl-3 text-right whitespace-nowrap">{balance(option.left)}</td>}
            </tr>
          ))}
        </tbody>
      </table>
      <p className="text-[12px] text-soft">
        {told.words} {told.cite}
      </p>
    </section>
  );
}
