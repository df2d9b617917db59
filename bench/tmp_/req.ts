import { everyArrangement } from '../../core/testing/matrix';
import { trialsOf } from '../../core/trials/index';
import { judged } from '../../core/requirements/index';
import { checkJob } from '../../core/hazards/index';
const t0=performance.now(); const tally = new Map<string, number>(); let n=0; const ex=new Map<string,string>();
for (const { name, job, profile } of everyArrangement()) {
  const t = trialsOf(job, profile);
  const js = judged(t); n += js.length;
  const fs = checkJob(job, profile);
  for (const j of js) if (j.state !== 'met') { const covered = fs.some((f) => f.proof?.script === j.proof?.script && f.severity==='stop'); const k = `${j.requirement.id} ${j.state} ${j.does} ${j.proof?.script??''} ${covered?'covered':''}`; tally.set(k, (tally.get(k) ?? 0) + 1); if(!ex.has(k)) ex.set(k,name); }
}
console.log(n, 'requirements', ((performance.now()-t0)/1000).toFixed(1),'s');
for (const [k, v] of [...tally].sort((a,b)=>b[1]-a[1])) console.log(v, k, '|', ex.get(k));
