// Prints the demo sign-ins, only where the demo's people are in the database.
import { connect } from "../src/db/connect";
import { demoPassword, people } from "../src/demo/shop";

const db = connect(process.env.DATABASE_URL ?? "", 1);
const there = await db.selectFrom("user").select("username").where("email", "like", "%@tarnwick.invalid").execute();
if (there.length > 0) {
  console.log("Demo sign-ins (user name / password):");
  for (const p of people)
    console.log(`  ${p.username.padEnd(8)} ${demoPassword(p.username).padEnd(24)} ${p.name}, ${p.role}`);
}
await db.destroy();
