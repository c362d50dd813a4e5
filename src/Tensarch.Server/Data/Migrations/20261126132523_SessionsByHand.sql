-- next
ALTER TABLE "Sessions" ADD "EditId" TEXT NULL;
-- next
ALTER TABLE "Sessions" ADD "PlanBefore" TEXT NULL;
