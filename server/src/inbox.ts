import { Router } from "express";
import { readFileSync, statSync } from "node:fs";
import { join } from "node:path";

type Message = {
  readonly id: string;
  readonly from: string;
  readonly subject: string;
  readonly date: string;
  readonly text: string;
  readonly attachments: readonly { readonly name: string; readonly type: string }[];
};

/** A stand-in for the shop's mailbox: made-up messages in a folder, with what came with them. It keeps nothing. */
export const makeInbox = (folder: string): Router => {
  const router = Router();
  const { messages } = JSON.parse(readFileSync(join(folder, "messages.json"), "utf8")) as { messages: Message[] };
  router.get(
    "/",
    (_request, response) =>
      void response.json({
        messages: messages.map((message) => ({
          ...message,
          attachments: message.attachments.map(({ name, type }) => ({
            name,
            type,
            size: statSync(join(folder, name)).size,
          })),
        })),
      }),
  );
  // only what a message names is served, whatever the address says
  router.get("/:id/:name", (request, response, next) => {
    const message = messages.find(({ id }) => id === request.params.id);
    const attachment = message?.attachments.find(({ name }) => name === request.params.name);
    if (!attachment) return next();
    response.type(attachment.type).sendFile(attachment.name, { root: folder });
  });
  return router;
};
