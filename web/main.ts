import { beginEarly } from "./early";

beginEarly(location.pathname);
void import("./app");
