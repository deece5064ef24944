import { testServer } from "./server.ts";

testServer("mariadb");
