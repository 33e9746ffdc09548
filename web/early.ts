/**
 * The engine starts while the page is still being made: imported before all else.
 */
import { wakeExaminer } from "./workers/examiner";

if (/^\/(bench|new)\b/.test(window.location.pathname)) wakeExaminer();
