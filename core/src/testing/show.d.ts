import { Show } from '../show/schema';
export declare const testShow: () => Show;
export declare const songId: import("../units").Id<"Song">;
export declare const lookId: (name: string) => import("../units").Id<"Look">;
