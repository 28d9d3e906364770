export * as THREE from "three";
export { OrbitControls } from "three/examples/jsm/controls/OrbitControls.js";
export { STLLoader } from "three/examples/jsm/loaders/STLLoader.js";
export { ThreeMFLoader } from "three/examples/jsm/loaders/3MFLoader.js";
export { GLTFLoader } from "three/examples/jsm/loaders/GLTFLoader.js";
export { OBJLoader } from "three/examples/jsm/loaders/OBJLoader.js";
