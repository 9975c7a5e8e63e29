export * from "./machineFile.ts";
export * from "./machineProfile.ts";
export * from "./profileFile.ts";
export * from "./readBackDxf.ts";
export * from "./writeMachineFile.ts";
export * from "./releaseName.ts";
