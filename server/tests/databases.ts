/**
 * Both databases that the server runs on, each time a fresh one.
 */
import { randomUUID } from "node:crypto";
import pg from "pg";
import { inject } from "vitest";
import { type OpenDatabase, openDatabase } from "../store/database";
import { openPostgres } from "../store/postgres";
import { dataFolder } from "./folder";

export interface TestDatabase {
  name: string;
  open(): Promise<OpenDatabase>;
}

/** A fresh database on the PostgreSQL server of the tests. @returns its address */
export async function freshPostgres(): Promise<string> {
  const name = `t_${randomUUID().replaceAll("-", "")}`;
  const client = new pg.Client(inject("postgres"));
  await client.connect();
  await client.query(`create database ${name}`);
  await client.end();
  return inject("postgres").replace(/[^/]+$/, name);
}

export const DATABASES: readonly TestDatabase[] = [
  { name: "embedded", open: () => openDatabase(dataFolder()) },
  { name: "PostgreSQL", open: async () => openPostgres(await freshPostgres()) },
];
