-- next
ALTER TABLE "Sessions" ADD "Beside" TEXT NOT NULL DEFAULT '[]';
