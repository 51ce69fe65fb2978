"use strict";

/* What the computer sends is shown as it comes; nothing is kept, and nothing is asked of anybody else. */
const at = (id) => document.getElementById(id);
const words = JSON.parse(at("words").textContent);
const say = (key, value) => words[`page.${key}`].replace("{0}", value);
const SVG = "http://www.w3.org/2000/svg";
const known = new Map();
let newest = 0;
let sound = null;
let alarms = "";

function wheel() {
  const svg = document.createElementNS(SVG, "svg");
  svg.setAttribute("viewBox", "-16 -16 32 32");
  svg.setAttribute("class", "wheel");
  svg.setAttribute("aria-hidden", "true");
  for (let i = 0; i < 8; i++) {
    const a = (i / 8) * 2 * Math.PI - Math.PI / 2 + 0.07;
    const b = ((i + 1) / 8) * 2 * Math.PI - Math.PI / 2 - 0.07;
    const piece = document.createElementNS(SVG, "path");
    piece.setAttribute("d", `M${2 * Math.cos((a + b) / 2)} ${2 * Math.sin((a + b) / 2)}L${15 * Math.cos(a)} ${15 * Math.sin(a)}`
      + `A15 15 0 0 1 ${15 * Math.cos(b)} ${15 * Math.sin(b)}Z`);
    svg.append(piece);
  }
  return svg;
}

function make(tag, name, parent) {
  const made = document.createElement(tag);
  made.className = name;
  parent.append(made);
  return made;
}

function card(index) {
  const root = document.createElement("li");
  root.className = "card";
  root.tabIndex = 0;
  root.style.setProperty("--own", `var(--c${index % 8})`);
  const top = make("div", "top", root);
  const parts = { root, name: make("span", "name", top), state: make("span", "state", top), wheel: wheel() };
  top.append(parts.wheel);
  const number = make("div", "number", root);
  parts.value = make("span", "value", number);
  parts.unit = make("span", "unit", number);
  parts.detail = make("p", "detail", root);
  parts.lane = make("div", "lane", root);
  const ends = make("div", "ends", parts.lane);
  parts.high = make("span", "", ends);
  parts.low = make("span", "", ends);
  const svg = document.createElementNS(SVG, "svg");
  svg.setAttribute("viewBox", "0 -4 96 108");
  svg.setAttribute("preserveAspectRatio", "none");
  svg.setAttribute("aria-hidden", "true");
  parts.path = document.createElementNS(SVG, "path");
  svg.append(parts.path);
  parts.lane.append(svg);
  parts.over = make("p", "over", root);
  parts.over.textContent = say("last-10-s");
  return parts;
}

function write(node, text) {
  if (node.textContent !== text) {
    node.textContent = text;
  }
}

function line(lane) {
  let path = "";
  let joined = false;
  for (let c = 0; 2 * c + 1 < lane.length - 2; c++) {
    const low = lane[2 * c];
    const high = lane[2 * c + 1];
    if (low === null) {
      continue;
    }
    path += `${joined ? "L" : "M"}${c} ${100 - low}L${c} ${100 - high}`;
    joined = true;
  }
  return path;
}

/* A lane comes with some frames only. */
function draw(parts, lane) {
  const some = lane.length > 2;
  parts.lane.style.display = some ? "" : "none";
  parts.over.style.display = some ? "" : "none";
  if (some) {
    parts.path.setAttribute("d", line(lane));
    write(parts.low, lane[lane.length - 2]);
    write(parts.high, lane[lane.length - 1]);
  }
}

function fill(parts, one) {
  parts.root.className = `card ${one.state}${one.beyond ? " beyond" : ""}`;
  write(parts.name, one.name);
  write(parts.value, one.value);
  write(parts.unit, one.unit);
  write(parts.detail, one.detail);
  write(parts.state, one.state === "live" ? "" : `${one.state === "lost" ? "✕" : "‖"} ${say(one.state)}`);
  parts.wheel.style.display = one.quality < 0 ? "none" : "";
  [...parts.wheel.children].forEach((piece, i) => {
    piece.style.fill = i < one.quality ? "var(--own)" : "var(--empty)";
  });
  if (one.lane) {
    draw(parts, one.lane);
  }
  const trust = one.quality < 0 ? "" : `, ${say("quality", one.quality)}`;
  parts.root.setAttribute("aria-label", `${one.name}: ${one.value} ${one.unit}, ${say(one.state)}${trust}. ${one.detail}`);
}

function alarm(list) {
  const now = list.join("\n");
  if (now === alarms) {
    return;
  }
  const more = list.some((one) => !alarms.split("\n").includes(one));
  alarms = now;
  at("alarms").replaceChildren(...list.map((one) => {
    const row = document.createElement("div");
    row.textContent = one;
    return row;
  }));
  if (more && sound) {
    beep();
  }
}

function beep() {
  for (const [begin, hz] of [[0, 880], [0.25, 660], [0.5, 880]]) {
    const tone = sound.createOscillator();
    const volume = sound.createGain();
    tone.frequency.value = hz;
    volume.gain.value = 0.25;
    tone.connect(volume).connect(sound.destination);
    tone.start(sound.currentTime + begin);
    tone.stop(sound.currentTime + begin + 0.2);
  }
  if (navigator.vibrate) {
    navigator.vibrate([200, 80, 200]);
  }
}

function show(frame) {
  newest = performance.now();
  document.body.classList.remove("gone");
  write(at("rig"), frame.rig);
  write(at("link"), frame.link);
  at("recording").hidden = !frame.recording;
  write(at("recorded"), say("recording", frame.recorded));
  const cards = at("cards");
  frame.cards.forEach((one, i) => {
    if (!known.has(one.id)) {
      known.set(one.id, card(i));
    }
    const parts = known.get(one.id);
    if (cards.children[i] !== parts.root) {
      cards.insertBefore(parts.root, cards.children[i] || null);
    }
    fill(parts, one);
  });
  for (const [id, parts] of known) {
    if (!frame.cards.some((one) => one.id === id)) {
      parts.root.remove();
      known.delete(id);
    }
  }
  at("more").hidden = frame.more <= 0 && frame.cards.length > 0;
  write(at("more"), frame.cards.length === 0 ? say("no-channel")
    : say("more", frame.more));
  at("marking").hidden = !frame.markers;
  alarm(frame.alarms);
}

const events = new EventSource("events");
events.onmessage = (event) => show(JSON.parse(event.data));

setInterval(() => {
  const silent = (performance.now() - newest) / 1000;
  if (events.readyState === EventSource.CLOSED) {
    document.body.classList.add("gone");
    write(at("link"), say("closed"));
  } else if (silent > 2) {
    document.body.classList.add("gone");
    write(at("link"), newest ? say("silent", Math.round(silent)) : say("waiting"));
  }
}, 500);

at("sound").onclick = () => {
  const on = sound === null;
  if (on) {
    sound = new AudioContext();
    beep();
  } else {
    sound.close();
    sound = null;
  }
  at("sound").setAttribute("aria-pressed", String(on));
  write(at("sound"), say(on ? "sounding" : "sound"));
};

function dress(night) {
  document.documentElement.classList.toggle("night", night);
  write(at("look"), say(night ? "day" : "night"));
}
dress(matchMedia("(prefers-color-scheme: dark)").matches);
at("look").onclick = () => dress(!document.documentElement.classList.contains("night"));

at("marking").onsubmit = async (event) => {
  event.preventDefault();
  const text = at("mark").value.trim();
  if (!text) {
    return;
  }
  try {
    const answer = await fetch("marker", { method: "POST", body: text });
    write(at("marked"), answer.ok ? say("marked", text) : say("no-markers"));
    if (answer.ok) {
      at("mark").value = "";
    }
  } catch (error) {
    write(at("marked"), say("not-sent"));
  }
};
