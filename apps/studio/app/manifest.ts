import type { MetadataRoute } from "next";

/** Caravan as an installed program: its name and icon, the files it opens, where it can begin. */
export default function manifest(): MetadataRoute.Manifest {
  return {
    id: "/",
    name: "Caravan",
    short_name: "Caravan",
    description: "Cuts sprite sheets into frames, builds animation clips, and delivers what a game loads.",
    start_url: "/",
    display: "standalone",
    background_color: "#f7f2e8",
    theme_color: "#f7f2e8",
    icons: [{ src: "/icon.svg", sizes: "any", type: "image/svg+xml" }],
    file_handlers: [{ action: "/", accept: { "application/vnd.caravan+zip": [".caravan"] } }],
    shortcuts: [
      { name: "The last project", url: "/" },
      { name: "A new project", url: "/?new" },
      { name: "The demo", url: "/?demo" },
    ],
  };
}
