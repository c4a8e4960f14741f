import { AsItWas } from "@/ui/bench/as-it-was";

export default AsItWas;
