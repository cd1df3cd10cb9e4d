"""The style of the report as a web page: one column on a phone, pages on paper."""

STYLE = """
:root{color:#24404E;background:#EDF2F3;font:16px/1.5 Figtree,system-ui,sans-serif}
*{box-sizing:border-box;print-color-adjust:exact;-webkit-print-color-adjust:exact}
body{max-width:920px;margin:0 auto;padding:24px}
section{background:#fff;padding:30px 36px;margin:0 0 24px;border-radius:6px}
h1,h2,h3,.lead,.large{font-family:"Source Serif 4",Georgia,serif}
h1,h2,h3{line-height:1.2;margin:0 0 10px;overflow-wrap:anywhere}h1{font-size:34px}h2{font-size:28px}h3{font-size:19px;margin-top:24px}
.lead,.large{font-size:19px;line-height:1.4;margin:0 0 14px}p{margin:0 0 10px}
table{border-collapse:collapse;width:100%;font-variant-numeric:tabular-nums;font-size:14px;margin:8px 0 14px}
th,td{padding:5px 8px;text-align:right;border-bottom:1px solid #D3DDE0;vertical-align:top;font-weight:400;overflow-wrap:anywhere}
thead th{color:#55696F;font-size:14px;border-bottom:2px solid #24404E}tr.strong>*{font-weight:600}tr.total>*{font-weight:600;border-top:2px solid #24404E}
.word{text-align:left}img{max-width:100%;display:block;border-radius:3px}.quiet{color:#55696F}.small{font-size:14px}
figure{margin:12px 0;break-inside:avoid}figcaption{color:#55696F;font-size:14px;margin-top:4px}
.figures{display:flex;gap:12px 40px;flex-wrap:wrap;margin:12px 0;align-items:flex-end}.figures b{display:block;font-size:20px;line-height:1.2}
.figures div:first-child b{font-size:40px}.stacked{flex-direction:column;align-items:flex-start}
.keys{display:grid;grid-template-columns:repeat(auto-fit,minmax(140px,1fr));gap:14px 24px;margin:12px 0}.keys b{display:block;font-size:24px;line-height:1.25}
.moss{color:#3E6A4B}.cedar{color:var(--accent)}.rain{color:#2A6596}.own{border-left:3px solid var(--accent);padding-left:12px}
.homes{display:grid;grid-template-columns:repeat(var(--n),minmax(0,1fr));gap:16px;margin:14px 0}.homes>div{max-width:420px;font-size:14px;break-inside:avoid;overflow-wrap:anywhere}
.pic{position:relative}.num{position:absolute;left:6px;top:6px;min-width:24px;height:24px;border-radius:12px;background:#24404E;color:#fff;text-align:center;font:600 14px/24px Figtree,system-ui,sans-serif}
.num.in{position:static;display:inline-block}
.columns{display:grid;gap:12px 24px;margin:10px 0}.columns>div{min-width:0}
.row{display:grid;grid-template-columns:132px 1.4fr 1fr 1.4fr;gap:6px 14px;padding:10px 0;border-top:1px solid #D3DDE0;font-size:14px;break-inside:avoid;overflow-wrap:anywhere}
.row b{font-size:16px;display:block}
dl{display:grid;grid-template-columns:1.2fr 1fr;margin:8px 0 14px;font-size:14px}dl.two{grid-template-columns:1.2fr 1fr 1.2fr 1fr;column-gap:0}
dt,dd{margin:0;padding:4px 8px 4px 0;border-bottom:1px solid #D3DDE0;overflow-wrap:anywhere}dt{color:#55696F}dd{font-weight:500}
.ruled{border-bottom:1px solid #24404E;height:44px;max-width:300px}ul{padding-left:18px}li{margin-bottom:6px}
nav th{width:38%}a{color:inherit}
footer{padding:0 12px}
@media (max-width:620px){
body{padding:0}section{padding:22px 18px;margin:0 0 10px;border-radius:0}h1{font-size:28px}h2{font-size:24px}.figures div:first-child b{font-size:34px}
.columns{grid-template-columns:minmax(0,1fr)!important}.homes{grid-template-columns:repeat(auto-fit,minmax(140px,1fr))}.row{grid-template-columns:96px 1fr}.row>:nth-child(n+3){grid-column:2}dl.two{grid-template-columns:1.2fr 1fr}
table.cards thead{position:absolute;width:1px;height:1px;overflow:hidden;clip-path:inset(50%)}
table.cards,table.cards tbody,table.cards tr,table.cards td,table.cards th{display:block;width:100%}
table.cards tr{padding:8px 0;border-bottom:1px solid #D3DDE0}table.cards tr>*{border:0;padding:2px 0;text-align:left}
table.cards tr>:first-child{font-weight:600}
table.cards td{display:grid;grid-template-columns:minmax(0,1fr) minmax(0,1fr);gap:12px}table.cards td::before{content:attr(data-label);color:#55696F}table.cards td[data-label=""]{grid-template-columns:1fr}table.cards td[data-label=""]::before{content:none}
table.cards td:empty{display:none}
}
@media print{
@page{margin:15mm}:root{background:#fff;font-size:10pt}body{max-width:none;padding:0}
section{padding:0;margin:0;break-before:page;border-radius:0}section:first-child{break-before:auto}section.flows{break-before:auto;padding-top:18pt}
h1,h2,h3{break-after:avoid}h1,h2{font-size:20pt}h3{font-size:12pt;margin-top:10pt}.lead,.large{font-size:12pt;margin-bottom:6pt}
table,.row,dl,.small,figcaption,.homes>div,thead th{font-size:8.5pt;line-height:1.35}th,td,dt,dd{padding-top:2pt;padding-bottom:2pt}tr{break-inside:avoid}
figure{margin:6pt 0}figure img{max-height:88mm;width:auto!important;margin:0 auto}.homes{gap:8pt;margin:6pt 0}.homes img,.pic img{max-height:56mm}.row{padding:4pt 0;grid-template-columns:92pt 1.4fr 1fr 1.4fr}.row b{font-size:9.5pt}
.figures div:first-child b{font-size:28pt}.figures b{font-size:13pt}
}
"""
