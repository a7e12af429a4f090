UPDATE "audit" SET "action" = replace("action", ' ', '-') WHERE "action" LIKE '% %';
