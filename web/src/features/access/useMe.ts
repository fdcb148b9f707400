import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { api, Problem, SIGNED_OUT } from "../../api/client";
import type { components } from "../../api/schema";

export type Me = components["schemas"]["Me"];
export type Account = components["schemas"]["Account"];
export type Role = Me["role"];

export const ROLES: { value: Role; label: string }[] = [
  { value: "VIEW", label: "looks" },
  { value: "MEASURE", label: "measures" },
  { value: "ADMINISTER", label: "administers" },
];

/** Who uses this window: null as long as somebody must sign in, undefined until it is known. */
export function useMe(): Me | null | undefined {
  const queries = useQueryClient();
  useEffect(() => {
    const signedOut = () => queries.setQueryData(["me"], null);
    window.addEventListener(SIGNED_OUT, signedOut);
    return () => window.removeEventListener(SIGNED_OUT, signedOut);
  }, [queries]);
  const { data } = useQuery({
    queryKey: ["me"],
    queryFn: async () => {
      try {
        return await api.get<Me>("/api/accounts/me");
      } catch (e) {
        if (e instanceof Problem && e.status === 401) {
          return null;
        }
        throw e;
      }
    },
    retry: true,
  });
  return data;
}
