import { configure } from "@testing-library/dom";

// A loud or slow machine may take its time over what comes; what is wrong stays wrong.
configure({ asyncUtilTimeout: 15_000 });
